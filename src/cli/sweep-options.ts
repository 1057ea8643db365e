import type { RawOptions } from './raw-options.js';
import { IsopticError } from '../core/errors.js';
import type { Pick as DevicePick } from '../core/profile/pick.js';
import type { Device } from '../core/profile/profile.js';
import { resizedDevice } from '../core/profile/resize.js';
import { isFor } from '../run/captures.js';
import { knownDevices } from '../run/sweep/known-devices.js';
import { USUAL_SWEEP, type SweepRange } from '../run/sweep/plan.js';
import type { Settings } from './config/load.js';
import { devicesFor } from './pick-devices.js';

const LEAST = 50;
const MOST = 8192;

/** What the command line and the configuration say of a search; what is said first wins. */
export interface SweepWishes {
  readonly from?: string | number | undefined;
  readonly to?: string | number | undefined;
  readonly height?: string | number | undefined;
  /** `200..390`: search over heights. */
  readonly heights?: string | undefined;
  readonly every?: boolean | undefined;
  /** Ends for some pages, unless the command line says any. */
  readonly own?: SweepRange['own'] | undefined;
}

/** The wishes of a command's options over those of the configuration. */
export function wishesOf(raw: RawOptions, { sweep }: Settings['config']): SweepWishes {
  const text = (name: string) => {
    const value = raw[name];
    return typeof value === 'string' ? value : undefined;
  };
  return {
    from: text('from') ?? sweep.from,
    to: text('to') ?? sweep.to,
    height: text('height') ?? sweep.height,
    heights: text('heights'),
    every: raw['every'] === true,
    own: raw['from'] === undefined && raw['to'] === undefined ? sweep.pages : [],
  };
}

/** The one device whose window is resized; a plain window where none was named. */
export function sweepDevicePicks(
  picks: readonly DevicePick[],
  { to, height }: SweepWishes,
): readonly DevicePick[] {
  if (picks.length > 0) return picks;
  return [{ at: `${pxOf('--to', to, USUAL_SWEEP.to)}x${pxOf('--height', height, USUAL_SWEEP.height)}` }];
}

/** @throws IsopticError `bad-option` for sizes that are none, or more devices than one */
export function sweepRange(
  devices: readonly Device[],
  { catalogue, config }: Pick<Settings, 'catalogue' | 'config'>,
  wishes: SweepWishes,
): SweepRange {
  const [device, another] = devices;
  if (!device || another) {
    throw new IsopticError(
      'bad-option',
      `A search over sizes has one device, and ${devices.map(({ name }) => name).join(', ')} were named.`,
      'Name one of them with --on or --at.',
    );
  }
  const shared = {
    every: wishes.every ?? false,
    own: wishes.own ?? [],
    known: knownDevices(catalogue),
    ranges: Object.entries(config.ranges).map(([label, [min, max]]) => ({ label, span: { min, max } })),
  };
  if (wishes.heights !== undefined) {
    const [from, to] = rangeOf('--heights', wishes.heights);
    return { axis: 'height', from, to, device, ...shared };
  }
  const from = pxOf('--from', wishes.from, USUAL_SWEEP.from);
  const to = pxOf('--to', wishes.to, USUAL_SWEEP.to);
  const height = pxOf('--height', wishes.height, device.height);
  if (from >= to)
    throw new IsopticError(
      'bad-option',
      `--from ${from} --to ${to}: that is no range.`,
      'Give the narrowest width first.',
    );
  for (const { pages, from: least = from, to: most = to } of shared.own) {
    if (least < most) continue;
    throw new IsopticError(
      'bad-config',
      `sweep.pages: ${pages.join(', ')}: from ${least} to ${most} px is no range.`,
      'Give the narrowest width first.',
    );
  }
  return {
    axis: 'width',
    from,
    to,
    device: resizedDevice(device, { width: device.width, height }),
    ...shared,
  };
}

/** The search that a check is asked for beside its lineup, over the widths of a plain window; undefined without one. */
export function sweepAsked(raw: RawOptions, settings: Settings): SweepRange | undefined {
  const asked = raw['sweep'];
  if (asked === undefined || asked === false) return undefined;
  const [from, to] = typeof asked === 'string' ? rangeOf('--sweep', asked) : [];
  const { sweep } = settings.config;
  const wishes: SweepWishes = {
    ...sweep,
    from: from ?? sweep.from,
    to: to ?? sweep.to,
    own: from === undefined ? sweep.pages : [],
  };
  const devices = devicesFor(sweepDevicePicks([], wishes), false, [{}], settings);
  return sweepRange(devices, settings, wishes);
}

/** The widths of a page that must be right; none for all. */
export function rightFor(
  { right, pages }: Settings['config']['sweep'],
  page: string,
): readonly (readonly [from: number, to: number])[] {
  return pages.find((entry) => isFor(page, entry.pages))?.right ?? right ?? [];
}

/** `200..390` */
function rangeOf(option: string, text: string): [number, number] {
  const match = /^(\d+)\.\.(\d+)$/.exec(text);
  const [from, to] = match ? [match[1], match[2]].map((part) => pxOf(option, part, 0)) : [];
  if (from === undefined || to === undefined || from >= to) {
    throw new IsopticError(
      'bad-option',
      `${option} ${text}: not a range of sizes.`,
      'Write LEAST..MOST in CSS px, for instance 200..390.',
    );
  }
  return [from, to];
}

/** @throws IsopticError `bad-option` */
function pxOf(option: string, text: string | number | undefined, otherwise: number): number {
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
