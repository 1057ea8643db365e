import { intersect, type Rect } from '../geometry/rect.js';
import { beginsAtFarEnd } from './scroll-origin.js';
import { scrollerOf } from './scrollers.js';
import type { NodeIndex, SnapshotView } from './view.js';

type Axis = 'x' | 'y';

/** How far a scroll container can be scrolled on along an axis, from whichever end it begins at, CSS px. */
export function restOf(view: SnapshotView, holder: NodeIndex, axis: Axis): number {
  const [width, height, scrollWidth, scrollHeight] = view.scrollSizes(holder);
  const most = axis === 'x' ? scrollWidth - width : scrollHeight - height;
  return Math.max(0, most - Math.abs(view.scrolledBy(holder)[axis]));
}

/** What of a rectangle a scroll container shows once it is scrolled to its end; null where it shows nothing of it. CSS px of the page. */
export function atScrollEnd(view: SnapshotView, holder: NodeIndex, rect: Rect, axis: Axis): Rect | null {
  const rest = restOf(view, holder, axis);
  const moved = { ...rect, [axis]: rect[axis] + (beginsAtFarEnd(view, holder)[axis] ? rest : -rest) };
  return intersect(moved, view.paddingBox(holder));
}

/** The nearest scroll container of an element that can be scrolled along an axis, or else the outermost one; −1 where it is in none. */
export function scrollerAlong(view: SnapshotView, i: NodeIndex, axis: Axis): NodeIndex {
  let found = scrollerOf(view, i);
  for (let at = found; at >= 0; at = scrollerOf(view, view.containingElement(at))) {
    found = at;
    const [width, height, scrollWidth, scrollHeight] = view.scrollSizes(at);
    if (axis === 'x' ? scrollWidth > width : scrollHeight > height) break;
  }
  return found;
}
