import type { MediaEnvironment } from '../../core/css/media-query.js';
import type { RangeLabel } from '../../core/sweep/ranges.js';
import type { SweepAxis } from '../../core/sweep/trace.js';
import type { Device } from '../../core/profile/profile.js';
import { resizedDevice } from '../../core/profile/resize.js';
import { isFor } from '../captures.js';

/** Which sizes of a window are looked at. */
export interface SweepRange {
  readonly axis: SweepAxis;
  /** Whole CSS px along the axis, both ends included. */
  readonly from: number;
  readonly to: number;
  /** Everything but the size along the axis. */
  readonly device: Device;
  /** The devices that there are, as media queries see them: what asks for another one asks for nothing. */
  readonly known: readonly { readonly width: number; readonly environment: MediaEnvironment }[];
  /** Names for ranges of sizes; none for those of the page's own media queries. */
  readonly ranges: readonly RangeLabel[];
  /** Pages with ends of their own; the first entry that names a page says them. */
  readonly own: readonly {
    readonly pages: readonly string[];
    readonly from?: number | undefined;
    readonly to?: number | undefined;
  }[];
  /** Look at every size and not only at as many as it takes. */
  readonly every: boolean;
}

/** Where nobody says otherwise, CSS px. */
export const USUAL_SWEEP = { from: 280, to: 1920, height: 800 } as const;

/** The sizes of one page. */
export function rangeFor(range: SweepRange, page: string): SweepRange {
  const own = range.axis === 'width' ? range.own.find(({ pages }) => isFor(page, pages)) : undefined;
  return { ...range, from: own?.from ?? range.from, to: own?.to ?? range.to };
}

/** The device of a range at one of its sizes, named as an ad-hoc viewport is. */
export function deviceAt({ device, axis }: SweepRange, size: number): Device {
  const { width, height, dpr, mobile } = device;
  const viewport = axis === 'width' ? { width: size, height } : { width, height: size };
  const ratio = dpr === 1 ? '' : `@${Math.round(dpr * 100) / 100}`;
  const name = `${viewport.width}x${viewport.height}${ratio}${mobile ? '+mobile' : ''}`;
  return { ...resizedDevice(device, viewport), name };
}
