import { emulate } from '../../src/engine/chromium/emulate.js';
import type { Conditions } from '../../src/core/profile/conditions.js';
import { deviceOf } from '../support/device.js';

/** What the browser is asked for under some conditions, by method. That it works is for bench/slowdown.mjs to show. */
async function asked(conditions: Conditions): Promise<Record<string, unknown>> {
  const calls: Record<string, unknown> = {};
  const session = {
    send(method: string, params: unknown) {
      calls[method] = params;
      return Promise.resolve({});
    },
  };
  await emulate(session as unknown as Parameters<typeof emulate>[0], { ...deviceOf(600), conditions });
  return calls;
}

test('a slower processor is asked for as many times slower as it says, and not at all without', async () => {
  expect(await asked({ cpuSlowdown: 6 })).toMatchObject({ 'Emulation.setCPUThrottlingRate': { rate: 6 } });
  expect(await asked({})).not.toHaveProperty(['Emulation.setCPUThrottlingRate']);
});

test('a network is asked for in bytes a second; one without any bytes is none', async () => {
  const network = (latencyMs: number, downKbps: number, upKbps: number) =>
    asked({ network: { latencyMs, downKbps, upKbps } });
  expect(await network(150, 1600, 800)).toMatchObject({
    'Network.emulateNetworkConditions': {
      offline: false,
      latency: 150,
      downloadThroughput: 200_000,
      uploadThroughput: 100_000,
    },
  });
  expect(await network(0, 0, 0)).toMatchObject({ 'Network.emulateNetworkConditions': { offline: true } });
});
