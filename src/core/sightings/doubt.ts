import type { Rect } from '../geometry/rect.js';
import type { Look } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** By their boxes something lies over words or over a control; whether it hides them, pixels tell. */
export interface Doubt {
  readonly cover: NodeIndex;
  readonly under: NodeIndex;
  /** CSS px of the page. */
  readonly area: Rect;
  /** It does not lie over it: it cuts it, by its shape or at the edges of its box. */
  readonly cuts?: 'shape' | 'edge';
  /** What lies over it are words alone, and not what they stand on. */
  readonly byWords?: boolean;
  /** Nothing lies over them: whether the words, which are given twice, can be made out on what they lie on. */
  readonly unread?: boolean;
  /** What lies under them is a sign: one that is drawn in the ground of its element, or a picture. */
  readonly sign?: 'ground' | 'picture';
  /** Where they meet only once the page is scrolled: what stays on the screen then, and how far it is scrolled, CSS px. */
  readonly passing?: { readonly bar: NodeIndex; readonly scrolled: number };
}

/** So much of the ink in a spot has to be gone, and at least so much of it, CSS px². */
const LEAST_SHARE = 0.3;
const LEAST_HIDDEN = 6;

/** What a look showed of a spot, or of the nearest one where the same two meet, since not all are looked at; undefined where nobody looked. */
export function lookAt({ snapshot }: SnapshotView, { cover, under, passing, area }: Doubt): Look | undefined {
  const { uid } = snapshot.nodes;
  const bar = passing && uid[passing.bar];
  const ofBoth = (snapshot.looks ?? []).filter((one) =>
    bar === undefined
      ? one.bar === undefined && one.cover === uid[cover] && one.under === uid[under]
      : one.bar === bar,
  );
  const { x, y } = middleOf(area);
  const far = ({ at }: Look) => (at ? Math.hypot(at.x - x, at.y - y) : 0);
  return ofBoth.length === 0 ? undefined : ofBoth.reduce((a, b) => (far(b) < far(a) ? b : a));
}

/** The middle of a rectangle, to a tenth of a CSS px. */
export function middleOf({ x, y, width, height }: Rect): { x: number; y: number } {
  return { x: Math.round(10 * (x + width / 2)) / 10, y: Math.round(10 * (y + height / 2)) / 10 };
}

/**
 * How much ink is hidden in a spot that was looked at, CSS px², 0 where nothing to speak of is; null where nobody looked.
 * @param leastShare of the ink in the spot
 * @param mostInk where there is more ink, it is none that counts, CSS px²
 */
export function hiddenInk(
  view: SnapshotView,
  doubt: Doubt,
  leastShare = LEAST_SHARE,
  mostInk = Infinity,
): number | null {
  const look = lookAt(view, doubt);
  if (!look) return null;
  if (look.ink > mostInk) return 0;
  return look.hidden >= LEAST_HIDDEN && look.hidden >= leastShare * look.ink ? look.hidden : 0;
}
