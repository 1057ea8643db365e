import { grown, sizeAlong, type Rect } from '../geometry/rect.js';
import { RectIndex } from '../geometry/rect-index.js';
import { isOutOfFlow } from './displace.js';
import { isGrid } from './displays.js';
import { passedDown, perSnapshot, perStyle } from './memo.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** Where an item of a grid was put; null where that is left to the grid, along one axis at least. Empty where it is not known. */
const placeOf = perStyle((view, i): readonly string[] | null => {
  const area = view.style(i, 'grid-area');
  if (area === '') return [];
  const lines = linesOf(area);
  const isPut = (start: number) =>
    [lines[start]!, lines[start + 2]!].some((line) => !/^(auto|span\b.*)$/.test(line));
  return isPut(0) && isPut(1) ? lines : null;
});

/** The lines of `grid-area`: where rows and columns start, and where they end. What is left out goes by its start (CSS Grid 2, section 8.4). */
function linesOf(value: string): string[] {
  const [row = 'auto', column, rowEnd, columnEnd] = value.split('/').map((line) => line.trim());
  const orNamed = (line: string | undefined, start: string) => line ?? (isName(start) ? start : 'auto');
  const from = orNamed(column, row);
  return [row, from, orNamed(rowEnd, row), orNamed(columnEnd, from)];
}

/** A name alone is an area's. */
function isName(line: string): boolean {
  return line !== 'auto' && /^[^\d\s]+$/.test(line);
}

/**
 * Whether two items of one grid may stand in one cell. Items that the grid finds a place for stand in cells that nothing else has (CSS
 * Grid 2, section 8.5), and so do those in areas of different names: both must have been put there.
 */
function mayShareCell(view: SnapshotView, a: NodeIndex, b: NodeIndex): boolean {
  const [placeA, placeB] = [placeOf(view, a), placeOf(view, b)];
  if (!placeA || !placeB) return false;
  const isArea = (place: readonly string[]) => place.length > 0 && place.every(isName);
  return !(isArea(placeA) && isArea(placeB) && placeA[0] !== placeB[0]);
}

/** Less is a rounding, or a rim, CSS px. */
const LEAST_PX = 3;

/** By element: whether it is an item of a grid that lies partly on another one's box, which has a cell of its own. */
const meetsItem = perSnapshot((view): Uint8Array => {
  const found = new Uint8Array(view.count);
  for (let grid = view.body; grid < view.count; grid++) {
    if (!isGrid(view, grid)) continue;
    const items = view.childrenOf(grid).filter((i) => view.isRendered(i) && !isOutOfFlow(view, i));
    const index = new RectIndex(items.map((i) => view.box(i)));
    for (const [at, item] of items.entries()) {
      for (const other of index.search(grown(view.box(item), -LEAST_PX))) {
        if (other <= at || mayShareCell(view, item, items[other]!)) continue;
        found[item] = found[items[other]!] = 1;
      }
    }
  }
  return found;
});

/** Whether something stands in an item of a grid that has run out of its cell, or that another one runs onto. */
export const isInMeetingItem = passedDown<boolean>(
  (view, i) => view.parent(i),
  (view, i, above) => above || meetsItem(view)[i] === 1,
  false,
);

/**
 * The axis along which an item of a grid runs out of its cell, into that of another one; null where it does not, or is put above others on purpose.
 * @param next stands beside it, in the same element
 */
export function intoOtherCell(view: SnapshotView, i: NodeIndex, next: NodeIndex): 'x' | 'y' | null {
  if (!isGrid(view, view.parent(i)) || view.style(i, 'z-index') !== 'auto') return null;
  if (mayShareCell(view, i, next)) return null;
  const [a, b] = [view.box(i), view.box(next)];
  return likeliest(a, b).find((axis) => reachesInto(a, b, axis)) ?? null;
}

/** Items in one row are in columns beside one another, others in rows. */
function likeliest(a: Rect, b: Rect): readonly ('x' | 'y')[] {
  return areInOneRow(a, b) ? ['x', 'y'] : ['y', 'x'];
}

/** Whether a box begins before another one, and so reaches into it where they meet; or ends after it. */
function reachesInto(a: Rect, b: Rect, axis: 'x' | 'y'): boolean {
  const [endA, endB] = [a[axis] + sizeAlong(a, axis), b[axis] + sizeAlong(b, axis)];
  return a[axis] + LEAST_PX < b[axis] || (endA > endB + LEAST_PX && a[axis] > b[axis]);
}

/** Whether two items stand in one row, however they are aligned in it. */
function areInOneRow(a: Rect, b: Rect): boolean {
  const [more, lower] = [b.height - a.height, b.y - a.y];
  return [lower, lower + more / 2, lower + more].some((apart) => Math.abs(apart) < LEAST_PX);
}
