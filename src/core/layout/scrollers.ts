import type { Rect } from '../geometry/rect.js';
import { passedDown, perStyle } from './memo.js';
import { beginsAtFarEnd } from './scroll-origin.js';
import type { NodeIndex, SnapshotView } from './view.js';

const scrollsAcross = perStyle((view, i) => /auto|scroll/.test(view.style(i, 'overflow-x')));
const scrollsDown = perStyle((view, i) => /auto|scroll/.test(view.style(i, 'overflow-y')));

/** Whether an element lets a reader scroll along an axis what does not fit into it. */
export function scrollsAlong(view: SnapshotView, i: NodeIndex, axis: 'x' | 'y'): boolean {
  return (axis === 'x' ? scrollsAcross : scrollsDown)(view, i);
}

const isScroller = perStyle((view, i) => {
  const x = view.style(i, 'overflow-x');
  return x !== 'visible' && /auto|scroll/.test(x + view.style(i, 'overflow-y'));
});
const cutsOff = perStyle((view, i) =>
  /hidden|clip/.test(view.style(i, 'overflow-x') + view.style(i, 'overflow-y')),
);

/** The scroll container that an element's content is in, itself included; −1 where that is the page, or cut off before. */
export const scrollerOf = passedDown<NodeIndex>(
  (view, i) => view.containingElement(i),
  (view, i, above) => {
    if (i === view.root || i === view.body) return -1;
    if (isScroller(view, i)) return i;
    return view.style(i, 'overflow-x') !== 'visible' && cutsOff(view, i) ? -1 : above;
  },
  -1,
);

/**
 * What scrolls an element's content, or cuts it off, past boxes in which all fits: these move nothing and take nothing away. −1 where that is
 * the page, or what cuts.
 */
export const movingScrollerOf = passedDown<NodeIndex>(
  (view, i) => view.containingElement(i),
  (view, i, above) => {
    if (i === view.root || i === view.body) return -1;
    const scrolls = isScroller(view, i);
    if (!scrolls && !cutsOff(view, i)) return above;
    const [width, height, scrollWidth, scrollHeight] = view.scrollSizes(i);
    if (scrollWidth <= width && scrollHeight <= height) return above;
    return scrolls ? i : -1;
  },
  -1,
);

/** The nearest scroll container that holds an element, itself included, whether or not something on the way cuts it off; −1 for the page. */
export const nearestScrollerOf = passedDown<NodeIndex>(
  (view, i) => view.containingElement(i),
  (view, i, above) => (isScroller(view, i) ? i : above),
  -1,
);

/** Whether an element is laid out in the content of a scroll container: what is fixed to the screen is not, wherever it stands in the tree. */
export function isContentOf(view: SnapshotView, holder: NodeIndex, i: NodeIndex): boolean {
  for (let at = i; at >= 0; at = view.containingElement(at)) if (at === holder) return true;
  return false;
}

/**
 * Whether what stands in a scroll container, or in one within another, can be scrolled out from under something that does not scroll with it.
 * @param part of the content in question, CSS px from the page's top left
 * @param still what lies over it, and its element
 */
export function isFreedInScroller(
  view: SnapshotView,
  content: NodeIndex,
  part: Rect,
  still: NodeIndex,
  over: Rect,
): boolean {
  for (let at = content; at >= 0 && at !== view.root && at !== view.body; at = view.containingElement(at)) {
    if (!isScroller(view, at)) continue;
    if (isContentOf(view, at, still)) return false;
    if (isFreedBy(view, at, part, over)) return true;
  }
  return false;
}

function isFreedBy(view: SnapshotView, holder: NodeIndex, part: Rect, over: Rect): boolean {
  const window = view.paddingBox(holder);
  const scrolled = view.scrolledBy(holder);
  const [x, y] = [part.x + scrolled.x, part.y + scrolled.y];
  const [clientWidth, clientHeight, scrollWidth, scrollHeight] = view.scrollSizes(holder);
  const isFar = beginsAtFarEnd(view, holder);
  const on = { x: isFar.x ? 0 : scrollWidth - clientWidth, y: isFar.y ? 0 : scrollHeight - clientHeight };
  // To the near side of what lies over it, where there is room to be seen in.
  const leftOf = over.x - window.x >= part.width && x + part.width - on.x <= over.x;
  const above = over.y - window.y >= part.height && y + part.height - on.y <= over.y;
  return (scrollWidth > clientWidth && leftOf) || (scrollHeight > clientHeight && above);
}
