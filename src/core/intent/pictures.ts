import { sizeAlong } from '../geometry/rect.js';
import { isOutOfFlow } from '../layout/displace.js';
import { controlAround } from '../layout/ancestors.js';
import { isMoved } from '../layout/transforms.js';
import { isLogo } from './emblems.js';
import { FLAG_PLAYER } from '../layout/snapshot.js';
import type { Loss } from './loss.js';
import type { Ink, Scene } from '../layout/scene.js';

/** What a script draws is a chart more often than a picture: of that no such share is cropped, of its height or width. */
const LEAST_OF_CHART = 0.25;

/** Of a frame that holds nothing else, its picture fills so much of the width. */
const LEAST_OF_FRAME = 0.5;

/** What a button cuts of the sign in it, of its height or width, is no room round it. */
const LEAST_OF_SIGN = 0.25;
/** Of the keys of a player so much may go, CSS px. */
const LEAST_OF_KEYS = 8;

/**
 * A picture that its frame crops: the frame holds nothing else in flow, or the picture is positioned, moved or made to fill
 * it. What is left is a picture of its own right. Cut off is one that stands among other content and is too wide for it, and a logo that is too high.
 */
export function isCroppedPicture(scene: Scene, { ink, cutter, axis, px, byShape }: Loss): boolean {
  if (byShape === true) return false;
  const { view } = scene;
  if (view.has(ink.node, FLAG_PLAYER) && losesKeys(ink, axis)) return false;
  const fit = view.style(ink.node, 'object-fit');
  if (fit === 'cover' || fit === 'none' || fit === 'scale-down') return true;
  for (let at = ink.node; at > cutter; at = view.parent(at)) {
    if (isOutOfFlow(view, at) || isMoved(view, at)) return true;
    if (view.margins(at).some((margin) => margin <= -2)) return true;
  }
  const size = sizeAlong(view.box(ink.node), axis);
  if (view.tag(ink.node) === 'canvas' && px >= LEAST_OF_CHART * size) return false;
  if (view.tag(ink.node) === 'svg' && controlAround(view, cutter) >= 0 && px >= LEAST_OF_SIGN * size)
    return false;
  if (px < 0.1 * size || (axis === 'y' && !isLogo(view, ink.node))) return true;
  // A frame is as wide as its picture, a bar is not.
  if (axis === 'y' && view.box(ink.node).width < LEAST_OF_FRAME * view.box(cutter).width) return false;
  return !scene
    .inksIn(view.box(cutter))
    .some(
      (other) =>
        other.node !== ink.node &&
        scene.contains(cutter, other.node) &&
        !scene.contains(ink.node, other.node),
    );
}

/** Whether a player is cut off at a side or from below, where its keys are. */
function losesKeys({ full, shown }: Ink, axis: 'x' | 'y'): boolean {
  if (!shown) return true;
  if (axis === 'x') return full.width - shown.width > LEAST_OF_KEYS;
  return full.y + full.height - shown.y - shown.height > LEAST_OF_KEYS;
}
