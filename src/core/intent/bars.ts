import { pxOf } from '../css/lengths.js';
import { isOpaque } from '../layout/paint.js';
import type { Scene } from '../layout/scene.js';
import { scrollportOf, type Scrollport } from '../layout/scrollport.js';
import type { NodeIndex } from '../layout/view.js';

/** A bar that stays at the top edge over its whole width while the page, or what stands for it, scrolls under it. */
export function isAtTopEdge(scene: Scene, i: NodeIndex, port: Scrollport): boolean {
  const { view } = scene;
  const position = view.style(i, 'position');
  if (position !== 'fixed' && position !== 'sticky') return false;
  if (view.containingElement(i) >= 0 && position === 'fixed') return false;
  const top = pxOf(view.style(i, 'top'));
  if (top === null || Math.abs(top) > 8) return false;
  // Let out of the screen by a hair, for a script to learn that it sticks and to make it lower.
  if (position === 'sticky' && top < 0) return false;
  const box = view.box(i);
  const { node, origin, scrolled, height, most } = port;
  // Of what is fixed over a part of the screen, only what is at the top of that is.
  const isElsewhere = node >= 0 && Math.abs(box.y - origin - scrolled) > 8;
  if (position === 'sticky' ? scrollportOf(view, i) !== node : isElsewhere) return false;
  const { width } = node < 0 ? view.snapshot.viewport : view.paddingBox(node);
  if (box.width < 0.8 * width || box.height > 0.5 * height) return false;
  // A sticky element sticks within its parent only; one that is as high as itself never leaves its place.
  const parent = view.parent(i);
  if (position === 'sticky' && ![-1, view.body, view.root, node].includes(parent)) {
    if (view.box(parent).height < 0.8 * (most + height)) return false;
  }
  return isOpaque(view, i);
}
