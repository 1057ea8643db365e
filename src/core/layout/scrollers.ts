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

/** The scroll container that an element's content is in, itself included; −1 where that is the page, or cut off before. */
export const scrollerOf = passedDown<NodeIndex>(
  (view, i) => view.containingElement(i),
  (view, i, above) => {
    if (i === view.root || i === view.body) return -1;
    const x = view.style(i, 'overflow-x');
    if (x === 'visible') return above;
    if (/auto|scroll/.test(x + view.style(i, 'overflow-y'))) return i;
    return /hidden|clip/.test(x + view.style(i, 'overflow-y')) ? -1 : above;
  },
  -1,
);

/**
 * Whether what stands in a scroll container can be scrolled out from under something that does not scroll with it.
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
  const holder = scrollerOf(view, content);
  if (holder < 0) return false;
  for (let at = still; at >= 0; at = view.parent(at)) if (at === holder) return false;
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
