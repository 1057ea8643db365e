import { intersect, sizeAlong } from '../geometry/rect.js';
import type { Cover, Ink, Scene } from '../layout/scene.js';
import { clingingOf } from '../layout/clinging.js';
import { isHeldAtRest } from '../layout/sticking.js';
import { stickyRoot } from '../layout/viewport-layer.js';
import type { NodeIndex } from '../layout/view.js';

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
 * Whether what lies under something sticky, and scrolls by beside it, is seen whole at some scroll position. Where that can't
 * be followed (in a scroll container, or where both stick) it is taken to be.
 */
export function isFreedBySticking({ view }: Scene, cover: Cover, ink: Ink): boolean {
  const sticky = stickyRoot(view, cover.node);
  if (sticky < 0 || stickyRoot(view, ink.node) >= 0) return true;
  const clinging = clingingOf(view, sticky);
  if (clinging === null) return true;
  const { document: page, viewport, scroll } = view.snapshot;
  const height = viewport.shownHeight;
  const most = Math.max(0, page.height - height);
  const text = ink.shown!;
  const first = Math.max(0, text.y + text.height - height);
  const last = Math.min(most, text.y);
  if (last < first) return true;
  const now = clinging(cover.scrolled ?? scroll.y);
  for (let step = 0; step <= STEPS; step++) {
    const at = first + ((last - first) * step) / STEPS;
    const over = intersect({ ...cover.rect, y: cover.rect.y + clinging(at) - now }, text);
    if (!over || sizeAlong(over, 'y') < LEAST_SHARE * text.height) return true;
  }
  return false;
}
