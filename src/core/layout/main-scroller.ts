import { perSnapshot } from './memo.js';
import { scrollsAlong } from './scrollers.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** Of the screen, what scrolls in the page's place takes so much at the least. */
const LEAST_SHARE = 0.5;

/**
 * The scroll container in which all of an application is scrolled down where its document can't be; −1 where the document can, or nothing so
 * large scrolls in its place.
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
    if (scrollHeight > clientHeight + 1 && size > largest) [found, largest] = [i, size];
  }
  return found;
});

/** Whether a reader can scroll an element's content sideways as well. */
export function scrollsSideways(view: SnapshotView, i: NodeIndex): boolean {
  const [clientWidth, , scrollWidth] = view.scrollSizes(i);
  return scrollsAlong(view, i, 'x') && scrollWidth > clientWidth;
}
