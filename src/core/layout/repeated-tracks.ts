import { lengthOf } from '../css/lengths.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** One track that is repeated as often as there is room: its least and its greatest size, or its only one. */
const REPEATED = /^repeat\(auto-fi(?:t|ll), (?:minmax\((.+), ([^,]+)\)|([^ ]+))\)$/;

/**
 * What each column takes that a grid repeats as often as there is room, CSS px (CSS Grid 2, section 7.2.3.2: the greatest size of the
 * track where that is a length, not below the least one); null where it repeats none, or some of a size that is not known.
 */
export function repeatedColumn(view: SnapshotView, i: NodeIndex): number | null {
  if (!view.style(i, 'display').endsWith('grid')) return null;
  const found = REPEATED.exec(view.style(i, 'grid-template-columns'));
  if (!found) return null;
  const { width } = view.contentBox(i);
  const sizes = found.slice(1).map((size: string | undefined) => lengthOf(size ?? '', width));
  const known = sizes.filter((size) => !Number.isNaN(size));
  return known.length > 0 ? Math.max(...known) : null;
}
