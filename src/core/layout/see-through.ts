import { area, liesWithin } from '../geometry/rect.js';
import { leastGroundAlpha } from './paint.js';
import type { NodeIndex, SnapshotView } from './view.js';

/**
 * Of letters under it a fifth shows through: their contrast is below 1.6 to 1, whatever it was before (relative luminance as
 * in WCAG 2.2).
 */
const UNREADABLE_THROUGH = 0.8;
/** Edges of boxes are off by less, CSS px. */
const NEAR = 2;

/**
 * Whether words under an element's ground can't be read though they show through it. One that lies over all of what holds it dims it,
 * as is meant.
 * @param opacity of the element, its ancestors' included
 */
export function hidesWords(view: SnapshotView, i: NodeIndex, opacity: number): boolean {
  return opacity * leastGroundAlpha(view, i) >= UNREADABLE_THROUGH && !dimsAll(view, i);
}

function dimsAll(view: SnapshotView, i: NodeIndex): boolean {
  const { shownWidth: width, shownHeight: height } = view.snapshot.viewport;
  const box = view.box(i);
  if (view.style(i, 'position') === 'fixed') return box.width >= width - NEAR && box.height >= height - NEAR;
  const around = view.containingElement(i);
  if (around < 0) return true;
  return liesWithin(view.paddingBox(around), box, NEAR) && holdsMore(view, around, i);
}

/** Whether an element holds something beside one of those in it: a wrapper of that one alone is not what it dims. */
function holdsMore(view: SnapshotView, around: NodeIndex, i: NodeIndex): boolean {
  let within = i;
  while (view.parent(within) !== around && view.parent(within) >= 0) within = view.parent(within);
  return (
    view.linesOf(around).length > 0 ||
    view.childrenOf(around).some((other) => other !== within && area(view.box(other)) > 0)
  );
}
