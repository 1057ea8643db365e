import { pxOf } from '../css/lengths.js';
import { isFlow } from './displays.js';
import { perNode } from './memo.js';
import { holderOf, isInScroller } from './sticking.js';
import { fixedRoot } from './viewport-layer.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** By how far the page is scrolled, CSS px: the top of a sticky element, from the top of the page. */
export type Clinging = (scrolled: number) => number;

/**
 * How a sticky element moves while the page scrolls (CSS Positioned Layout 3, section 3.4): it keeps its distances to the edges
 * of the screen, and stays in the box that holds it. Null where it sticks in another scroll container, or its place in the flow
 * is not to be told.
 */
export const clingingOf = perNode((view, i): Clinging | null => {
  const [top, bottom] = [pxOf(view.style(i, 'top')), pxOf(view.style(i, 'bottom'))];
  const holder = holderOf(view, i);
  if (holder < 0 || isInScroller(view, i) || fixedRoot(view, i) >= 0 || (top === null && bottom === null))
    return null;
  const { scroll, viewport } = view.snapshot;
  const { height } = view.box(i);
  const around = view.contentBox(holder);
  const [first, last] = [around.y, around.y + around.height - height];
  const place = (rest: number, scrolled: number) => {
    let at = rest;
    if (bottom !== null)
      at = Math.max(first, Math.min(at, scrolled + viewport.shownHeight - bottom - height));
    if (top !== null) at = Math.min(last, Math.max(at, scrolled + top));
    return at;
  };
  const rest = restOf(view, i);
  // What does not come out where it was seen is laid out in a way that this does not know.
  if (rest === null || Math.abs(place(rest, scroll.y) - view.box(i).y) > 2) return null;
  return (scrolled) => place(rest, scrolled);
});

/** Where it would be if it did not stick: where it is, or, while it is held up at the foot of the screen, after what precedes it. */
function restOf(view: SnapshotView, i: NodeIndex): number | null {
  const { scroll, viewport } = view.snapshot;
  const box = view.box(i);
  const bottom = pxOf(view.style(i, 'bottom'));
  const foot = scroll.y + viewport.shownHeight - (bottom ?? 0);
  if (bottom === null || Math.abs(box.y + box.height - foot) > 1) return box.y;
  const siblings = view.childrenOf(view.parent(i));
  const before = siblings.slice(0, siblings.indexOf(i)).findLast((at) => isInFlow(view, at));
  if (before === undefined || !isFlow(view, before)) return null;
  const gap = Math.max(view.margins(before)[2], view.margins(i)[0]);
  return Math.max(box.y, view.box(before).y + view.box(before).height + gap);
}

function isInFlow(view: SnapshotView, i: NodeIndex): boolean {
  return view.isRendered(i) && view.style(i, 'position') === 'static' && view.style(i, 'float') === 'none';
}
