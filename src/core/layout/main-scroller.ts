import { bottomOf } from '../geometry/rect.js';
import { perSnapshot } from './memo.js';
import { scrollsAlong } from './scrollers.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** Of the screen, what scrolls in the page's place takes so much at the least. */
const LEAST_SHARE = 0.5;

/**
 * The scroll container in which all of an application is scrolled down where its document can't be, or would be if there were more of it; −1
 * where the document can, or nothing so large scrolls in its place.
 */
export const mainScrollerOf = perSnapshot((view): NodeIndex => {
  const { document: page, viewport, rootOverflow } = view.snapshot;
  const { width, shownHeight } = viewport;
  const isStill = page.height <= shownHeight + 1 || /hidden|clip/.test(rootOverflow.y);
  if (!isStill) return -1;
  let [found, largest] = [-1, LEAST_SHARE * width * shownHeight];
  for (let i = 0; i < view.count; i++) {
    if (i === view.root || !view.isRendered(i) || !scrollsAlong(view, i, 'y')) continue;
    const [clientWidth, clientHeight, , scrollHeight] = view.scrollSizes(i);
    const size = clientWidth * Math.min(clientHeight, shownHeight);
    if (size > largest && (scrollHeight > clientHeight + 1 || hasRoomBelow(view, i)))
      [found, largest] = [i, size];
  }
  return found;
});

/** What its content leaves free below has its height from the screen: there a longer content would be scrolled. */
function hasRoomBelow(view: SnapshotView, i: NodeIndex): boolean {
  const end = bottomOf(view.contentBox(i)) - 1;
  return view.childrenOf(i).every((child) => !view.isRendered(child) || bottomOf(view.box(child)) < end);
}

/** Whether a reader can scroll an element's content sideways as well. */
export function scrollsSideways(view: SnapshotView, i: NodeIndex): boolean {
  const [clientWidth, , scrollWidth] = view.scrollSizes(i);
  return scrollsAlong(view, i, 'x') && scrollWidth > clientWidth;
}
