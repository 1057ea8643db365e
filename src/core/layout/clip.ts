import { containsPaint } from '../css/containing.js';
import { perStyle } from './memo.js';
import { FLAG_STILL_FRAME } from './snapshot.js';
import type { NodeIndex, SnapshotView } from './view.js';
import { isInline } from './displays.js';

/** Whether an element cuts off, or scrolls, what sticks out of it along an axis. The viewport's own overflow is not it. */
export function clipsAxis(view: SnapshotView, i: NodeIndex, axis: 'x' | 'y'): boolean {
  if (isFrame(view, i)) return true;
  if (view.tag(i) === 'svg') return cutsDrawing(view, i);
  if (isContained(view, i)) return true;
  return (axis === 'x' ? hasOverflowX : hasOverflowY)(view, i) && !givesOverflowToViewport(view, i);
}

/** Whether an element shows a document of its own. */
export function isFrame(view: SnapshotView, i: NodeIndex): boolean {
  return /^i?frame$/.test(view.tag(i));
}

/** Whether an element is a frame whose document may be scrolled. */
export function isScrollingFrame(view: SnapshotView, i: NodeIndex): boolean {
  return isFrame(view, i) && !view.has(i, FLAG_STILL_FRAME);
}

const isContained = perStyle(
  (view, i) => !isInline(view, i) && containsPaint((property) => view.style(i, property)),
);
/** Parts of drawings, of which no style is read, cut nothing. */
const NO_OVERFLOW = /^(?:visible)?$/;
// Inline boxes have no overflow of their own.
const hasOverflowX = perStyle(
  (view, i) => !isInline(view, i) && !NO_OVERFLOW.test(view.style(i, 'overflow-x')),
);
const hasOverflowY = perStyle(
  (view, i) => !isInline(view, i) && !NO_OVERFLOW.test(view.style(i, 'overflow-y')),
);

/** A drawing in line has an overflow of its own (SVG 2, section 8.6); of one within a drawing nothing is known. */
const cutsDrawing = perStyle((view, i) => /hidden|clip|scroll|auto/.test(view.style(i, 'overflow-x')));

/** CSS Overflow 3, section 3.3: the root's overflow, or the body's when the root's is visible, is the viewport's. */
function givesOverflowToViewport(view: SnapshotView, i: NodeIndex): boolean {
  if (i === view.root) return true;
  if (i !== view.body) return false;
  return (
    view.style(view.root, 'overflow-x') === 'visible' && view.style(view.root, 'overflow-y') === 'visible'
  );
}

/** A span along x within which an element can show; `scrolled` when a scroll container on the way moves it. */
export interface ClipX {
  readonly left: number;
  readonly right: number;
  readonly scrolled: boolean;
}

/** The clip that an element's own content is under along x, itself included: every clip on its containing chain. */
export function contentClipX(view: SnapshotView, i: NodeIndex, cache: Map<NodeIndex, ClipX>): ClipX {
  const path: NodeIndex[] = [];
  let at = i;
  let clip: ClipX | undefined;
  while (at >= 0 && !(clip = cache.get(at))) {
    path.push(at);
    at = view.containingElement(at);
  }
  let result: ClipX = clip ?? { left: -Infinity, right: Infinity, scrolled: false };
  for (const node of path.reverse()) {
    if (clipsAxis(view, node, 'x')) {
      const padding = view.paddingBox(node);
      const scrolls = /auto|scroll|hidden/.test(view.style(node, 'overflow-x'));
      result = {
        left: Math.max(result.left, padding.x),
        right: Math.min(result.right, padding.x + padding.width),
        scrolled: result.scrolled || scrolls,
      };
    }
    cache.set(node, result);
  }
  return result;
}
