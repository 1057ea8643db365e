import type { Rect } from '../geometry/rect.js';
import { perNode } from './memo.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** The scroll container that an element's content is in, itself included; −1 where that is the page, or cut off before. */
export const scrollerOf = perNode((view, from): NodeIndex => {
  for (let at = from; at > 0; at = view.containingElement(at)) {
    const overflow = `${view.style(at, 'overflow-x')} ${view.style(at, 'overflow-y')}`;
    if (at === view.body) return -1;
    if (/auto|scroll/.test(overflow)) return at;
    if (/hidden|clip/.test(overflow)) return -1;
  }
  return -1;
});

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
  const [clientWidth, clientHeight, scrollWidth, scrollHeight] = view.snapshot.nodes.scroll.subarray(
    4 * holder,
    4 * holder + 4,
  ) as unknown as [number, number, number, number];
  // To the near side of what lies over it, where there is room to be seen in.
  const leftOf =
    over.x - window.x >= part.width && part.x + part.width - (scrollWidth - clientWidth) <= over.x;
  const above =
    over.y - window.y >= part.height && part.y + part.height - (scrollHeight - clientHeight) <= over.y;
  return (scrollWidth > clientWidth && leftOf) || (scrollHeight > clientHeight && above);
}
