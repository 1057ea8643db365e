import type { Rect } from '../geometry/rect.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** By their boxes something lies over words or over a control; whether it hides them, pixels tell. */
export interface Doubt {
  readonly cover: NodeIndex;
  readonly under: NodeIndex;
  /** CSS px of the page. */
  readonly area: Rect;
  /** It does not lie over it: it cuts it, by its shape. */
  readonly cuts?: boolean;
  /** What lies over it are words alone, and not what they stand on. */
  readonly byWords?: boolean;
  /** What lies under them is a sign: one that is drawn in the ground of its element, or a picture. */
  readonly sign?: 'ground' | 'picture';
  /** Where they meet only once the page is scrolled: what stays on the screen then, and how far it is scrolled, CSS px. */
  readonly passing?: { readonly bar: NodeIndex; readonly scrolled: number };
}

/** So much of the ink in a spot has to be gone, and at least so much of it, CSS px². */
const LEAST_SHARE = 0.3;
const LEAST_HIDDEN = 6;

/**
 * How much ink is hidden in a spot that was looked at, CSS px², 0 where nothing to speak of is; null where nobody looked.
 * @param leastShare of the ink in the spot
 * @param mostInk where there is more ink, it is none that counts, CSS px²
 */
export function hiddenInk(
  { snapshot }: SnapshotView,
  { cover, under, passing }: Omit<Doubt, 'area'>,
  leastShare = LEAST_SHARE,
  mostInk = Infinity,
): number | null {
  const { uid } = snapshot.nodes;
  const bar = passing && uid[passing.bar];
  const look = snapshot.looks?.find((one) =>
    bar === undefined
      ? one.bar === undefined && one.cover === uid[cover] && one.under === uid[under]
      : one.bar === bar,
  );
  if (!look) return null;
  if (look.ink > mostInk) return 0;
  return look.hidden >= LEAST_HIDDEN && look.hidden >= leastShare * look.ink ? look.hidden : 0;
}
