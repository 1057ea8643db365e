import type { Deadline } from './deadline.js';
import type { NetworkLog } from './driver.js';

const QUIET_MS = 120;
const BOUND_MS = 4_000;
const ASK_MS = 20;

/** Waits until a page's network is quiet, at most `mostMs`; false where it never was. @throws OutOfTime */
export async function quietNetwork(
  network: NetworkLog,
  deadline: Deadline,
  mostMs: number,
): Promise<boolean> {
  const until = performance.now() + Math.min(BOUND_MS, mostMs);
  while (!network.isQuiet(QUIET_MS, BOUND_MS / 2)) {
    if (performance.now() > until) return false;
    await deadline.pause(ASK_MS);
  }
  return true;
}
