import type { Rect } from '../../core/geometry/rect.js';
import { DIFFERENCE_KINDS, type DifferenceKind } from '../../core/compare/structure/difference.js';
import { LEAST_DISTANCE } from '../../core/compare/pixels/differing.js';
import { isFor } from '../captures.js';

/** How pages are compared; where pages are named, for these alone. */
export interface CompareScope {
  /** Ids, `*` for anything; null for all. */
  readonly pages: readonly string[] | null;
  /** Selectors of what is left out, with all that stands in it. */
  readonly leaveOut?: readonly string[] | undefined;
  /** Parts of pages that are left out, CSS px from the top left. */
  readonly regions?: readonly Rect[] | undefined;
  /** Kinds that are not told. */
  readonly kinds?: readonly DifferenceKind[] | undefined;
  /** Lengths that differ by no more are equal, CSS px. */
  readonly px?: number | undefined;
  /** ΔEOK from which on colours differ. */
  readonly colour?: number | undefined;
  /** Share of the pixels that may differ, 0 to 1. */
  readonly pixels?: number | undefined;
}

/** How one page is compared. */
export interface PageSettings {
  readonly leaveOut: readonly string[];
  readonly regions: readonly Rect[];
  readonly kinds: ReadonlySet<DifferenceKind>;
  readonly px: number;
  readonly colour: number;
  readonly pixels: number;
}

/** Rounding of the browser is no difference, CSS px. */
const TOLERANCE = 1;

/** What holds for all pages and for this one together; of numbers, the last that is said. */
export function settingsFor(page: string, scopes: readonly CompareScope[]): PageSettings {
  const own = scopes.filter(({ pages }) => isFor(page, pages));
  const last = (key: 'px' | 'colour' | 'pixels') =>
    own.map((scope) => scope[key]).findLast((value) => value !== undefined);
  const off = new Set(own.flatMap(({ kinds = [] }) => kinds));
  return {
    leaveOut: own.flatMap(({ leaveOut = [] }) => leaveOut),
    regions: own.flatMap(({ regions = [] }) => regions),
    kinds: new Set(DIFFERENCE_KINDS.filter((kind) => !off.has(kind))),
    px: last('px') ?? TOLERANCE,
    colour: last('colour') ?? LEAST_DISTANCE,
    pixels: last('pixels') ?? 0,
  };
}
