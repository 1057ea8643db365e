import type { Rect } from '../../core/geometry/rect.js';
import { DIFFERENCE_KINDS, type DifferenceKind } from '../../core/compare/structure/difference.js';
import { LEAST_DISTANCE } from '../../core/compare/pixels/differing.js';
import { ROUNDING, type Tolerance } from '../../core/compare/structure/parts.js';
import { isFor } from '../captures.js';

/** How pages are compared; where pages are named, for these alone. */
export interface CompareScope {
  /** Ids, `*` for anything; null for all. */
  readonly pages: readonly string[] | null;
  /** Selectors of what `kinds` and `px` hold for, with all that stands in it; all of the page unless told. */
  readonly within?: readonly string[] | undefined;
  /** Selectors of what is left out, with all that stands in it. */
  readonly leaveOut?: readonly string[] | undefined;
  /** Parts of pages that are left out, CSS px from the top left. */
  readonly regions?: readonly Rect[] | undefined;
  /** Kinds that are not told. */
  readonly kinds?: readonly DifferenceKind[] | undefined;
  /** Lengths that differ by no more are equal, CSS px: all of them, or by what they are of. */
  readonly px?: number | { readonly [K in keyof Tolerance]?: number | undefined } | undefined;
  /** ΔEOK from which on colours differ. */
  readonly colour?: number | undefined;
  /** Share of the pixels that may differ, 0 to 1. */
  readonly pixels?: number | undefined;
}

/** How what some selectors name is compared. */
export interface PartSettings {
  readonly within: readonly string[];
  readonly kinds: ReadonlySet<DifferenceKind>;
  readonly tolerance: Tolerance;
}

/** How one page is compared. */
export interface PageSettings {
  readonly leaveOut: readonly string[];
  readonly regions: readonly Rect[];
  readonly kinds: ReadonlySet<DifferenceKind>;
  readonly tolerance: Tolerance;
  /** What is compared otherwise. */
  readonly parts: readonly PartSettings[];
  readonly colour: number;
  readonly pixels: number;
}

/** What holds for all pages and for this one together; of numbers, the last that is said. */
export function settingsFor(page: string, scopes: readonly CompareScope[]): PageSettings {
  const all = scopes.filter(({ pages }) => isFor(page, pages));
  const own = all.filter(({ within }) => within === undefined);
  const last = (key: 'colour' | 'pixels') =>
    own.map((scope) => scope[key]).findLast((value) => value !== undefined);
  const off = new Set(own.flatMap(({ kinds = [] }) => kinds));
  const kinds = DIFFERENCE_KINDS.filter((kind) => !off.has(kind));
  const tolerance = own.reduce((so, { px }) => toleranceWith(so, px), ROUNDING);
  return {
    leaveOut: own.flatMap(({ leaveOut = [] }) => leaveOut),
    regions: own.flatMap(({ regions = [] }) => regions),
    kinds: new Set(kinds),
    tolerance,
    parts: all.flatMap((scope): PartSettings[] => {
      const { within, kinds: without = [], px } = scope;
      if (within === undefined) return [];
      const told = new Set(kinds.filter((kind) => !without.includes(kind)));
      return [{ within, kinds: told, tolerance: toleranceWith(tolerance, px) }];
    }),
    colour: last('colour') ?? LEAST_DISTANCE,
    pixels: last('pixels') ?? 0,
  };
}

function toleranceWith(tolerance: Tolerance, px: CompareScope['px']): Tolerance {
  if (px === undefined) return tolerance;
  if (typeof px === 'number') return { moved: px, resized: px };
  return { moved: px.moved ?? tolerance.moved, resized: px.resized ?? tolerance.resized };
}
