import { IsopticError } from '../core/errors.js';
import { pickDevices, type Catalogue, type Pick } from '../core/profile/pick.js';
import type { Device } from '../core/profile/profile.js';
import { resizedDevice } from '../core/profile/resize.js';
import { environmentOf } from '../core/sweep/environment.js';
import type { SweepRange } from '../run/sweep/plan.js';
import type { RawOptions } from './check-request.js';

const FROM = 280;
const TO = 1920;
const HEIGHT = 800;
const LEAST = 50;
const MOST = 8192;

/** The one device whose window is resized; a plain window where none was named. */
export function sweepDevicePicks(picks: readonly Pick[], { to, height }: RawOptions): readonly Pick[] {
  if (picks.length > 0) return picks;
  return [{ at: `${pxOf('--to', to, TO)}x${pxOf('--height', height, HEIGHT)}` }];
}

/** @throws IsopticError `bad-option` for sizes that are none, or more devices than one */
export function sweepRange(devices: readonly Device[], catalogue: Catalogue, raw: RawOptions): SweepRange {
  const [device, another] = devices;
  if (!device || another) {
    throw new IsopticError(
      'bad-option',
      `A search over sizes has one device, and ${devices.map(({ name }) => name).join(', ')} were named.`,
      'Name one of them with --on or --at.',
    );
  }
  const every = raw['every'] === true;
  const known = knownDevices(catalogue);
  const height = pxOf('--height', raw['height'], device.height);
  if (raw['heights'] !== undefined) {
    if (raw['from'] !== undefined || raw['to'] !== undefined || raw['height'] !== undefined)
      throw new IsopticError(
        'bad-option',
        '--heights searches over heights, and --from, --to and --height are for widths.',
        'Leave them out, and name the width with --at or --on.',
      );
    const [from, to] = rangeOf(String(raw['heights']));
    return { axis: 'height', from, to, device, known, every };
  }
  const from = pxOf('--from', raw['from'], FROM);
  const to = pxOf('--to', raw['to'], TO);
  if (from >= to)
    throw new IsopticError(
      'bad-option',
      `--from ${from} --to ${to}: that is no range.`,
      'Give the narrowest width first.',
    );
  return {
    axis: 'width',
    from,
    to,
    device: resizedDevice(device, { width: device.width, height }),
    known,
    every,
  };
}

/** Every profile of the catalogue, held both ways. */
function knownDevices(catalogue: Catalogue): SweepRange['known'] {
  const picks = catalogue.profiles.map(({ name }) => ({ on: name }));
  return pickDevices(picks, catalogue, { turn: true }).map((device) => ({
    width: device.width,
    environment: environmentOf(device),
  }));
}

/** `200..390` */
function rangeOf(text: string): [number, number] {
  const match = /^(\d+)\.\.(\d+)$/.exec(text);
  const [from, to] = match ? [match[1], match[2]].map((part) => pxOf('--heights', part, 0)) : [];
  if (from === undefined || to === undefined || from >= to) {
    throw new IsopticError(
      'bad-option',
      `--heights ${text}: not a range of heights.`,
      'Write LEAST..MOST in CSS px, for instance 200..390.',
    );
  }
  return [from, to];
}

/** @throws IsopticError `bad-option` */
function pxOf(option: string, text: string | boolean | undefined, otherwise: number): number {
  if (text === undefined) return otherwise;
  const px = Number(text);
  if (!Number.isInteger(px) || px < LEAST || px > MOST) {
    throw new IsopticError(
      'bad-option',
      `${option} ${String(text)}: not a size.`,
      `Give whole CSS px, ${LEAST} to ${MOST}.`,
    );
  }
  return px;
}
