import type { ScaleName } from '../view/scale.js';
import { resettle } from './follow.js';
import { paneBoxes } from './room.js';
import { look, view } from './state.js';

const LEAST = 0.25;
const MOST = 4;

let wall: HTMLElement | null = null;
export const setWall = (element: HTMLElement | null): void => void (wall = element);

/**
 * Zooms the wall; what is under a point of it stays there.
 * @param x px from the wall's left edge; its middle unless told
 */
export function zoomTo(wanted: number, x = (wall?.clientWidth ?? 0) / 2): void {
  const zoom = Math.min(MOST, Math.max(LEAST, wanted));
  const place = (wall?.scrollLeft ?? 0) + x;
  const before = paneBoxes.value;
  const at = before.findIndex(({ left, outer }) => place < left + outer);
  look({ zoom });
  const under = before[at];
  const after = paneBoxes.value[at];
  // The panes are drawn first, so that there is room to scroll.
  requestAnimationFrame(() => {
    resettle();
    if (!wall || !under || !after) return;
    const share = (place - under.left) / under.outer;
    wall.scrollLeft = after.left + share * after.outer - x;
  });
}

/** Another scale, each at the size that it begins with. */
export function scaleTo(scale: ScaleName): void {
  look({ scale, zoom: 1 });
  requestAnimationFrame(resettle);
}

export const zoomBy = (factor: number, x?: number): void => zoomTo(view.value.zoom * factor, x);
