import type { Pick } from '../core/profile/pick.js';
import type { RawOptions } from './raw-options.js';
import { askedOf, type Asked } from './check-request.js';
import { runCheck, type ShownResult } from './run-check.js';
import { sweepDevicePicks, sweepRange, wishesOf } from './sweep-options.js';

/** Searches the pages of some targets over sizes, on the one device that was named, and renders what shows what was found. */
export async function runSweep(
  targets: readonly string[],
  raw: RawOptions,
  picks: readonly Pick[],
): Promise<{ asked: Asked; result: ShownResult }> {
  const asked = await askedOf(raw, ({ config }) => sweepDevicePicks(picks, wishesOf(raw, config)));
  const { options, settings } = asked;
  const request = await asked.requestFor(targets);
  const sweep = sweepRange(request.devices, settings, wishesOf(raw, settings.config));
  const result = await runCheck(
    { ...request, devices: [], sweep },
    { quiet: options.quiet || options.json, verbose: options.verbose },
  );
  return { asked, result };
}
