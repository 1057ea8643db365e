import type { Rect } from '../geometry/rect.js';
import { pxOf } from '../css/lengths.js';
import { perNode, perStyle } from './memo.js';
import { scrollerOf } from './scrollers.js';
import { portOf } from './scrollport.js';
import { fixedRoot, stickyRoot } from './viewport-layer.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** Whether an element is sticky, wherever it sticks. */
export const isSticky = perStyle((view, i) => view.style(i, 'position') === 'sticky');

/** An element that stays at the top of the screen, or of a scroll container, over a range of scroll positions. */
export interface Sticking {
  readonly node: NodeIndex;
  /** What is scrolled: −1 for the page. */
  readonly in: NodeIndex;
  /** Where it then is: its box with `y` from the top of the screen, or of the container. */
  readonly onScreen: Rect;
  /** The scroll positions over which it is there, CSS px. */
  readonly from: number;
  readonly to: number;
}

/**
 * How an element stays at the top of the screen while the page scrolls, or of its scroll container: fixed, or sticky with a `top`, within the box
 * that holds it (CSS Positioned Layout 3, section 3.4). Null for what does not, and in a container that is scrolled already.
 */
export const stickingOf = perNode((view, i): Sticking | null => {
  const { scroll, viewport, document: page } = view.snapshot;
  const most = Math.max(0, page.height - viewport.shownHeight);
  const box = view.box(i);
  if (view.style(i, 'position') === 'fixed' && fixedRoot(view, i) === i)
    return { node: i, in: -1, onScreen: { ...box, y: box.y - scroll.y }, from: 0, to: most };
  const top = pxOf(view.style(i, 'top'));
  if (view.style(i, 'position') !== 'sticky' || top === null) return null;
  const [holder, port] = [holderOf(view, i), portOf(view, i)];
  if (holder < 0 || port === null || (port.node >= 0 && port.scrolled !== 0)) return null;
  const around = view.contentBox(holder);
  const y = port.inset.top + top;
  // It rests at its place until the page is scrolled that far, and leaves with the end of what holds it.
  const from = Math.max(0, box.y - port.origin - y);
  const leaves = around.y + around.height - port.origin - box.height - y;
  const to = holder === port.node ? port.most : Math.min(port.most, leaves);
  return to > from ? { node: i, in: port.node, onScreen: { ...box, y }, from, to } : null;
});

/** Boxes are told to a fraction of a px. */
const CLOSE_PX = 1;

/**
 * Whether a sticky element is held at its distance from the edge while nothing is scrolled yet. What follows it in the flow and
 * lies under it then had the room for it elsewhere: its distance is larger than the room before it, along either axis.
 */
export function isHeldAtRest(view: SnapshotView, i: NodeIndex): boolean {
  const holder = scrollerOf(view, view.parent(i));
  const { scroll, viewport } = view.snapshot;
  const scrolled = holder < 0 ? scroll : view.scrolledBy(holder);
  const page = { x: 0, y: 0, width: viewport.width, height: viewport.height };
  const window = holder < 0 ? page : view.contentBox(holder);
  const box = view.box(i);
  const isHeld = (side: 'top' | 'left', axis: 'x' | 'y') => {
    const distance = pxOf(view.style(i, side)) ?? 0;
    return distance > 0 && scrolled[axis] === 0 && Math.abs(box[axis] - window[axis] - distance) <= CLOSE_PX;
  };
  return isHeld('top', 'y') || isHeld('left', 'x');
}

/**
 * Whether of two elements one sticks while the other scrolls by, so that they may meet now and not later. Not so as long as nothing is
 * scrolled and what sticks at the top or left stands where the flow has it: what lies on it there would only be scrolled further
 * over it.
 */
export function passOneAnother(view: SnapshotView, a: NodeIndex, b: NodeIndex): boolean {
  const [ofA, ofB] = [stickyRoot(view, a), stickyRoot(view, b)];
  return ofA !== ofB && [ofA, ofB].some((sticky) => sticky >= 0 && !standsInPlace(view, sticky));
}

function standsInPlace(view: SnapshotView, i: NodeIndex): boolean {
  const holder = scrollerOf(view, view.parent(i));
  const { x, y } = holder < 0 ? view.snapshot.scroll : view.scrolledBy(holder);
  const sticksLater = pxOf(view.style(i, 'bottom')) === null && pxOf(view.style(i, 'right')) === null;
  return x === 0 && y === 0 && sticksLater && !isHeldAtRest(view, i);
}

/** The box in which a sticky element stays: its parent's; of a cell or row, the table's. */
export function holderOf(view: SnapshotView, i: NodeIndex): NodeIndex {
  let at = view.parent(i);
  if (!/^table-/.test(view.style(i, 'display'))) return at;
  while (at >= 0 && /^table-/.test(view.style(at, 'display'))) at = view.parent(at);
  return at;
}
