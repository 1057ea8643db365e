import { pxOf } from '../css/lengths.js';
import type { Rect } from '../geometry/rect.js';
import { mainScrollerOf } from '../layout/main-scroller.js';
import { isOpaque } from '../layout/paint.js';
import type { Scene } from '../layout/scene.js';
import { scrollportOf } from '../layout/scrollport.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** Where a bar is at the top of: the screen, or what scrolls in the page's place. */
export interface Edge {
  /** What is scrolled: −1 for the page. */
  readonly node: NodeIndex;
  /** What is seen of it, where it stands on the page. */
  readonly window: Rect;
  /** How high all of its content is, CSS px. */
  readonly height: number;
}

/** The page's own edge, or that of what scrolls in its place. */
export function edgeOf(view: SnapshotView): Edge {
  const { viewport, document: page, scroll } = view.snapshot;
  const node = mainScrollerOf(view);
  if (node >= 0) return { node, window: view.paddingBox(node), height: view.scrollSizes(node)[3] };
  const window = { ...scroll, width: viewport.width, height: viewport.shownHeight };
  return { node, window, height: page.height };
}

/** A bar that stays at the top edge over its whole width while the page, or what stands for it, scrolls under it. */
export function isAtTopEdge(scene: Scene, i: NodeIndex, { node, window, height }: Edge): boolean {
  const { view } = scene;
  const position = view.style(i, 'position');
  if (position !== 'fixed' && position !== 'sticky') return false;
  if (view.containingElement(i) >= 0 && position === 'fixed') return false;
  const top = pxOf(view.style(i, 'top'));
  if (top === null || Math.abs(top) > 8) return false;
  // Let out of the screen by a hair, for a script to learn that it sticks and to make it lower.
  if (position === 'sticky' && top < 0) return false;
  const box = view.box(i);
  if (position === 'sticky' ? scrollportOf(view, i) !== node : node >= 0 && Math.abs(box.y - window.y) > 8)
    return false;
  if (box.width < 0.8 * window.width || box.height > 0.5 * window.height) return false;
  // A sticky element sticks within its parent only; one that is as high as itself never leaves its place.
  const parent = view.parent(i);
  if (position === 'sticky' && ![-1, view.body, view.root, node].includes(parent)) {
    if (view.box(parent).height < 0.8 * height) return false;
  }
  return isOpaque(view, i);
}
