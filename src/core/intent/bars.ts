import { pxOf } from '../css/lengths.js';
import { isOpaque } from '../layout/paint.js';
import type { Scene } from '../layout/scene.js';
import type { NodeIndex } from '../layout/view.js';

/** A bar that stays at the top edge of the screen over its whole width while the page scrolls under it. */
export function isAtTopEdge(scene: Scene, i: NodeIndex): boolean {
  const { view } = scene;
  const position = view.style(i, 'position');
  if (position !== 'fixed' && position !== 'sticky') return false;
  if (view.containingElement(i) >= 0 && position === 'fixed') return false;
  const top = pxOf(view.style(i, 'top'));
  if (top === null || Math.abs(top) > 8) return false;
  // Let out of the screen by a hair, for a script to learn that it sticks and to make it lower.
  if (position === 'sticky' && top < 0) return false;
  const { width } = view.snapshot.viewport;
  const box = view.box(i);
  if (box.width < 0.8 * width || box.height > 0.5 * view.snapshot.viewport.shownHeight) return false;
  // A sticky element sticks within its parent only; one that is as high as itself never leaves its place.
  const parent = view.parent(i);
  if (position === 'sticky' && parent >= 0 && parent !== view.body && parent !== view.root) {
    if (view.box(parent).height < 0.8 * view.snapshot.document.height) return false;
  }
  return isOpaque(view, i);
}
