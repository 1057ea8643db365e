import { intersect, sizeAlong } from '../geometry/rect.js';
import type { Cover, Ink, Scene } from '../layout/scene.js';
import { clingingOf, type Clinging } from '../layout/clinging.js';
import { movingScrollerOf } from '../layout/scrollers.js';
import { scrollportOf } from '../layout/scrollport.js';
import { isHeldAtRest } from '../layout/sticking.js';
import { stickyRoot } from '../layout/viewport-layer.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** Scroll positions that are looked at between the first and the last at which a line is on the screen. */
const STEPS = 24;
/** So much of a line's or control's height may still be under what sticks. */
const LEAST_SHARE = 0.25;

/**
 * The sticky element of a cover that is held over what follows it before anybody scrolls: that is under it by mistake, and the room
 * for it is elsewhere. −1 where there is none.
 */
export function heldOver(scene: Scene, cover: Cover, ink: Ink): NodeIndex {
  const sticky = stickyRoot(scene.view, cover.node);
  const isHeld =
    sticky >= 0 &&
    cover.scrolled === undefined &&
    ink.node > scene.lastOf(sticky) &&
    isHeldAtRest(scene.view, sticky);
  return isHeld ? sticky : -1;
}

/**
 * Whether what lies under something sticky, and scrolls by beside it, is seen whole at some scroll position of the page, or of the container
 * that both are in. Where that can't be followed (in different containers) it is taken to be.
 */
export function isFreedBySticking({ view }: Scene, cover: Cover, ink: Ink): boolean {
  const sticky = stickyRoot(view, cover.node);
  const clinging = sticky < 0 ? null : clingingOf(view, sticky);
  const other = stickyRoot(view, ink.node);
  const its = other < 0 ? null : clingingOf(view, other);
  if (clinging === null || (other >= 0 && its?.in.node !== clinging.in.node)) return true;
  const { node, origin, most, height, scrolled } = clinging.in;
  if (node >= 0 && !isScrolledBy(view, ink.node, node)) return true;
  const text = ink.shown!;
  const first = its ? 0 : Math.max(0, text.y - origin + text.height - height);
  const last = its ? most : Math.min(most, text.y - origin);
  if (last < first) return true;
  const seenAt = node < 0 ? (cover.scrolled ?? scrolled) : scrolled;
  // What lies over it is told of at another scroll position than it is itself, where that is the end of the page.
  const movedBy = (moves: Clinging | null, at: number, from: number) =>
    moves ? moves.at(at) - moves.at(from) : 0;
  for (let step = 0; step <= STEPS; step++) {
    const at = first + ((last - first) * step) / STEPS;
    const meets = movedBy(clinging, at, seenAt) - movedBy(its, at, scrolled);
    const over = intersect({ ...cover.rect, y: cover.rect.y + meets }, text);
    if (!over || sizeAlong(over, 'y') < LEAST_SHARE * text.height) return true;
  }
  return false;
}

/** Whether an element is in the content of a container, and in none within it that scrolls. */
function isScrolledBy(view: SnapshotView, i: NodeIndex, holder: NodeIndex): boolean {
  return movingScrollerOf(view, i) === holder || scrollportOf(view, i) === holder;
}
