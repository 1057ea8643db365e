import type { Loss } from './loss.js';
import { intersect, liesWithin, type Rect } from '../geometry/rect.js';
import { likeness } from '../identity/signature.js';
import { displacementOf, isGrownInPlace, pullsAside } from '../layout/displace.js';
import { isMoved, movedBy } from '../layout/transforms.js';
import type { Scene } from '../layout/scene.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/**
 * Waiting wholly outside of what cuts it, put there by position, transform or a margin as wide as it is: a drawer, a caption that slides in; or words
 * indented away, for a picture to stand in their place.
 */
export function isOffStage(scene: Scene, loss: Loss): boolean {
  const { view } = scene;
  const { ink, cutter, whole } = loss;
  if (!whole) return false;
  if (isIndentedAway(scene, ink.node)) return true;
  for (let at: NodeIndex = ink.node; at > cutter; at = view.parent(at)) {
    // A panel that is moved down to its title slides up when it is pointed at.
    if (isMoved(view, at) && isHiddenByMove(view, at, loss)) return true;
    const moved = displacementOf(view, at);
    if (moved === 'absolute' || moved === 'fixed' || isPulledAside(view, at)) {
      const box = view.box(at);
      const window = view.paddingBox(cutter);
      const outside =
        box.x >= window.x + window.width - 1 ||
        box.x + box.width <= window.x + 1 ||
        box.y >= window.y + window.height - 1 ||
        box.y + box.height <= window.y + 1;
      if (outside && !isPlacedInside(view, at, window) && !isInHolder(view, at, cutter)) return true;
    }
  }
  return false;
}

/** Of what is lost, this share would be in sight if nothing were moved. */
const LEAST_IN_PLACE = 0.5;

/**
 * Whether a move is why something is out of sight: it would be in sight without it, or what is moved is a strip of things alike, each of which
 * comes into sight in its turn. What is too high for its window, and was moved a little, set in its middle or drawn larger, is lost.
 */
function isHiddenByMove(view: SnapshotView, moved: NodeIndex, { cutter, axis, rect }: Loss): boolean {
  if (isGrownInPlace(view, moved)) return false;
  const by = movedBy(view, moved);
  if (by === null || axis === 'x') return true;
  const inPlace = intersect({ ...rect, y: rect.y - by.y, x: rect.x - by.x }, view.paddingBox(cutter));
  if (inPlace && inPlace.height >= LEAST_IN_PLACE * rect.height) return true;
  const parts = view.childrenOf(moved).filter((part) => view.isElement(part) && view.isRendered(part));
  return parts.length > 1 && parts.every((part) => likeness(view, part) === likeness(view, parts[0]!));
}

/** Rounding, and so far a drawer waits beside its window, CSS px. */
const ASIDE = 2;
const FAR_ASIDE = 1000;

/**
 * Whether an offset of some px puts something into a window that is too small for that: what waits beside it is put there by all of its size,
 * by less than nothing or by very much, and slides wait in a row.
 */
function isPlacedInside(view: SnapshotView, i: NodeIndex, window: Rect): boolean {
  const isInwards = (side: 'top' | 'right' | 'bottom' | 'left', size: number) => {
    const value = view.style(i, side);
    const px = /^[\d.]+px$/.test(value) ? Number.parseFloat(value) : 0;
    return px > size + ASIDE && px < FAR_ASIDE;
  };
  const isInside =
    isInwards('left', window.width) ||
    isInwards('right', window.width) ||
    isInwards('top', window.height) ||
    isInwards('bottom', window.height);
  if (!isInside) return false;
  const own = likeness(view, i);
  return !view.childrenOf(view.parent(i)).some((other) => other !== i && likeness(view, other) === own);
}

/** Whether something stands in what it is placed by, which is itself cut off: a caption at the foot of a slide that is too high for its window. */
function isInHolder(view: SnapshotView, i: NodeIndex, cutter: NodeIndex): boolean {
  const holder = view.containingElement(i);
  return holder > cutter && liesWithin(view.box(i), view.box(holder), ASIDE);
}

/** Of its own width, what a margin that puts a drawer aside pulls it by. */
const PULLED_SHARE = 0.9;

function isPulledAside(view: SnapshotView, i: NodeIndex): boolean {
  const { width } = view.box(i);
  return width > 0 && pullsAside(view, i) >= PULLED_SHARE * width;
}

/** Image replacement: the words are indented or moved far out of sight. */
export function isIndentedAway({ view }: Scene, i: NodeIndex): boolean {
  const indent = view.style(i, 'text-indent');
  const value = Number.parseFloat(indent) || 0;
  return indent.endsWith('%') ? Math.abs(value) >= 100 : Math.abs(value) >= 200;
}
