import { pickDevices, type Catalogue } from '../../core/profile/pick.js';
import { environmentOf } from '../../core/sweep/environment.js';
import type { SweepRange } from './plan.js';

/** Every profile of the catalogue, held both ways. */
export function knownDevices(catalogue: Catalogue): SweepRange['known'] {
  const picks = catalogue.profiles.map(({ name }) => ({ on: name }));
  return pickDevices(picks, catalogue, { turn: true }).map((device) => ({
    width: device.width,
    environment: environmentOf(device),
  }));
}
