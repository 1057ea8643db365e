import { sizeAlong, type Rect } from '../geometry/rect.js';
import { isDrawn } from '../layout/paint.js';
import type { Scene } from '../layout/scene.js';
import type { NodeIndex } from '../layout/view.js';
import type { Loss } from './loss.js';

/** A scroll bar that a page draws itself is no thicker, CSS px, and about as long as what it scrolls. */
const THICKEST = 20;
const LEAST_LENGTH = 0.6;
/** So far from the edge of what it scrolls, or beside it. */
const NEAR = 24;

/**
 * What a script scrolls: hidden overflow with a scroll bar of the page's own at its edge, a track with a shorter thumb in it.
 * What is cut off there is reached by it.
 */
export function hasOwnScrollBar(scene: Scene, { cutter, axis }: Loss): boolean {
  const { view } = scene;
  if (!/hidden|clip/.test(view.style(cutter, axis === 'x' ? 'overflow-x' : 'overflow-y'))) return false;
  const window = view.box(cutter);
  const around = view.parent(cutter);
  const beside = around < 0 ? [] : view.childrenOf(around);
  return [...beside, ...view.childrenOf(cutter)].some(
    (track) => track !== cutter && isBarOf(scene, track, window, axis),
  );
}

function isBarOf({ view, painted }: Scene, track: NodeIndex, window: Rect, axis: 'x' | 'y'): boolean {
  const box = view.box(track);
  const across = axis === 'y' ? 'x' : 'y';
  const [length, thickness, whole] = [sizeAlong(box, axis), sizeAlong(box, across), sizeAlong(window, axis)];
  if (thickness < 1 || thickness > THICKEST || length < LEAST_LENGTH * whole || length > 1.1 * whole)
    return false;
  const edge = window[across] + sizeAlong(window, across);
  const gap = Math.min(Math.abs(box[across] + thickness - edge), Math.abs(box[across] - edge));
  if (gap > NEAR) return false;
  return view.childrenOf(track).some((thumb) => {
    const size = sizeAlong(view.box(thumb), axis);
    return painted[thumb] !== 0 && isDrawn(view, thumb) && size > 4 && size < 0.95 * length;
  });
}
