import type { Rect } from '../geometry/rect.js';
import { passedDown } from './memo.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** Of the screen's height. */
const SLIT = 0.2;

/** The outermost element fixed to the viewport that holds an element; −1 when it scrolls with the page. */
export const fixedRoot = passedDown<NodeIndex>(
  (view, i) => view.containingElement(i),
  (view, i, above) => {
    if (above >= 0) return above;
    return view.style(i, 'position') === 'fixed' && view.containingElement(i) < 0 ? i : -1;
  },
  -1,
);

/** The nearest sticky element that holds an element, itself included; −1 when none does. */
export const stickyRoot = passedDown<NodeIndex>(
  (view, i) => view.parent(i),
  (view, i, above) => (view.style(i, 'position') === 'sticky' ? i : above),
  -1,
);

/** What stays at its place on the screen, or sticks, and holds an element, itself included; −1 where it scrolls with the page. */
export function stayingRoot(view: SnapshotView, i: NodeIndex): NodeIndex {
  const sticky = stickyRoot(view, i);
  return sticky >= 0 ? sticky : fixedRoot(view, i);
}

/**
 * Whether scrolling frees what stands at `target` (page coordinates) from a box fixed to the viewport: there is a scroll
 * position, of those that the page has, at which the target is on the screen and not under the box.
 */
export function isFreedByScrolling(view: SnapshotView, target: Rect, cover: Rect): boolean {
  const { viewport, document: page, scroll, rootOverflow } = view.snapshot;
  const height = viewport.shownHeight;
  const scrolls = rootOverflow.y !== 'hidden' && rootOverflow.y !== 'clip';
  const most = scrolls ? Math.max(0, page.height - height) : scroll.y;
  // The cover's place on the screen is the same at every scroll position.
  const top = cover.y - scroll.y;
  const bottom = top + cover.height;
  // Wholly above the cover, and still on the screen: target.bottom − s ≤ top, target.bottom − s > some of it.
  const above = { from: target.y + target.height - top, to: target.y };
  // Wholly below it: target.y − s ≥ bottom, and on the screen: target.bottom − s ≤ height.
  const below = { from: target.y + target.height - height, to: target.y - bottom };
  // A slit between the box and the edge of the screen is no place to read in.
  const places = [
    ...(top >= SLIT * height ? [above] : []),
    ...(height - bottom >= SLIT * height ? [below] : []),
  ];
  return places.some(({ from, to }) => {
    const low = Math.max(0, from);
    const high = Math.min(most, to);
    return low <= high + 0.5;
  });
}

/** The screen where it stands on the page after loading: what is fixed and beyond it can't be scrolled to. CSS px of the page. */
export function screenOnPage({ snapshot: { scroll, viewport } }: SnapshotView): Rect {
  const { width, shownWidth, shownHeight } = viewport;
  return { ...scroll, width: Math.max(width, shownWidth), height: shownHeight };
}

/** Whether an element is laid out against the viewport and stays there while the page scrolls. */
export function isFixed(view: SnapshotView, i: NodeIndex): boolean {
  return fixedRoot(view, i) >= 0;
}
