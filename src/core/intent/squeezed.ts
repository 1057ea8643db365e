import { perNode } from '../layout/memo.js';
import { isOutOfFlow } from '../layout/displace.js';
import { paintedOf } from '../layout/painted.js';
import { FLAG_TEXT } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** A bar may be so narrow that a sign of each row is left, and not its words, CSS px. */
const MOST_SIGN = 64;
/** No more room shows nothing, CSS px. */
const NO_ROOM = 2;

/**
 * Whether no width or height is left for an element though nobody asked for that: what stands beside it takes all of the room, or
 * a width that is a share of the container's less a number of px came out below nothing. What is closed says so by its own size.
 */
export const isSqueezedOut = perNode((view: SnapshotView, i: NodeIndex): boolean => {
  if (isOutOfFlow(view, i)) return false;
  const { width, height } = view.contentBox(i);
  if (hasNoRoom(width)) {
    if (isShareLessPx(view.style(i, 'width'))) return true;
    if (view.style(i, 'display') === 'table-cell') return !isNothing(view.style(i, 'width'));
  }
  const around = view.parent(i);
  if (around < 0) return false;
  const display = view.style(around, 'display');
  if (!/(flex|grid)$/.test(display)) return false;
  const isGrid = display.endsWith('grid');
  const isRow = isGrid ? hasNoRoom(width) : /^row/.test(view.style(around, 'flex-direction'));
  if (!hasNoRoom(isRow ? width : height) || isSizedToNothing(view, i, isRow)) return false;
  if (!(isGrid ? sharesTracks(view, around, isRow) : sharesRoom(view, i))) return false;
  return view.childrenOf(around).some((other) => other !== i && takesRoom(view, other, isRow));
});

function isSizedToNothing(view: SnapshotView, i: NodeIndex, isRow: boolean): boolean {
  const [size, most] = isRow ? (['width', 'max-width'] as const) : (['height', 'max-height'] as const);
  return isNothing(view.style(i, size)) || isNothing(view.style(i, most));
}

/** Whether an item is as large as its content or what is left, and not as large as its basis. */
function sharesRoom(view: SnapshotView, i: NodeIndex): boolean {
  const basis = view.style(i, 'flex-basis');
  // `flex: 1` is a share of the container, nothing of which is `0%`; a closed item has a basis of `0px` and does not grow from it.
  return basis === '0%' || !isNothing(basis) || Number(view.style(i, 'flex-grow')) > 0;
}

/** Whether tracks of a grid get shares of what others leave, and none is asked to be nothing: a closed one is `0fr`. */
function sharesTracks(view: SnapshotView, grid: NodeIndex, isRow: boolean): boolean {
  const tracks = view.style(grid, isRow ? 'grid-template-columns' : 'grid-template-rows');
  return /\dfr/.test(tracks) && !EMPTY_TRACK.test(tracks.replace(LEAST_NOTHING, 'minmax('));
}

/** Whether an element in the flow of a row or column is seen to fill a part of it. */
export function takesRoom(view: SnapshotView, i: NodeIndex, isRow: boolean): boolean {
  const { width, height } = view.box(i);
  if (paintedOf(view).painted[i] !== 1 || isOutOfFlow(view, i)) return false;
  return (isRow ? width : height) > MOST_SIGN || holdsWords(view, i);
}

function holdsWords(view: SnapshotView, i: NodeIndex): boolean {
  return view.has(i, FLAG_TEXT) || view.childrenOf(i).some((child) => holdsWords(view, child));
}

/** A track that is asked to be nothing. */
const EMPTY_TRACK = /(?<![\d.])0(?:\.0+)?(?:fr|px|%)/;
/** One that may be nothing where there is no room for more. */
const LEAST_NOTHING = /minmax\(0(?:px|%)?, /g;

const hasNoRoom = (px: number) => px <= NO_ROOM;
const isNothing = (value: string) => /^[\d.]+(px|%)$/.test(value) && hasNoRoom(Number.parseFloat(value));
const isShareLessPx = (value: string) => /^calc\([\d.]+% - [\d.]+px\)$/.test(value);
