import type { Rect } from '../../geometry/rect.js';
import type { NodeIndex } from '../../layout/view.js';

/** What a person sees of a page in one render and not in another, in the order in which readers want to know it. */
export const DIFFERENCE_KINDS = [
  'control',
  'removed',
  'hidden',
  'inserted',
  'shown',
  'replaced',
  'text',
  'picture',
  'cropped',
  'columns',
  'rows',
  'reordered',
  'positioned',
  'stacked',
  'moved',
  'resized',
  'restyled',
  'wrapped',
  'enclosed',
  'released',
  'first-screen',
] as const;
export type DifferenceKind = (typeof DIFFERENCE_KINDS)[number];

/** One element's difference, before those of repeated elements are put together. */
export interface Single {
  readonly kind: DifferenceKind;
  /** Its rows in the one layout and in the other; −1 where it is not there. */
  readonly a: NodeIndex;
  readonly b: NodeIndex;
  readonly from: string | number | null;
  readonly to: string | number | null;
  /** What is said of it, after its name, of one and of several: `takes 3 lines where it took 2`. */
  readonly one: string;
  readonly many: string;
}

/** A difference as it is told: of one element, or of several that are alike. */
export interface Difference {
  readonly kind: DifferenceKind;
  /** Selectors in the one layout and in the other; null where it is not there. */
  readonly a: string | null;
  readonly b: string | null;
  readonly from: string | number | null;
  readonly to: string | number | null;
  /** How many elements have it. */
  readonly count: number;
  readonly message: string;
  /** What comes of it elsewhere. */
  readonly follows: readonly string[];
  /** Where each of them is in the one layout and in the other, CSS px from the page's top left; `MOST_PLACES` at most. */
  readonly places: readonly Place[];
}

export interface Place {
  readonly a: Rect | null;
  readonly b: Rect | null;
}

/** More places than these are not kept of one difference. */
export const MOST_PLACES = 40;

/** Every kind is told. */
export const ALL_KINDS: ReadonlySet<DifferenceKind> = new Set(DIFFERENCE_KINDS);
