import { clipPathInset } from '../css/clip-values.js';
import { gradientAngle, hardMask } from '../css/hard-mask.js';
import { alphasIn } from '../css/colours.js';
import type { Scene } from '../layout/scene.js';
import { isCutThrough, type Loss } from './loss.js';
import { meets, type Rect } from '../geometry/rect.js';
import { FLAG_CONTROL, FLAG_FIELD, FLAG_PAGE_LINK } from '../layout/snapshot.js';
import { isDrawn } from '../layout/paint.js';
import { fixedRoot } from '../layout/viewport-layer.js';
import { isSqueezedOut } from './squeezed.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** Text kept for assistive technology only, or a menu that waits to be opened: its box is clipped to a dot, or to nothing. */
export function isVisuallyHidden(scene: Scene, cutter: NodeIndex): boolean {
  const { view } = scene;
  const box = view.box(cutter);
  if (box.width <= 2 || box.height <= 2) return !isSqueezedOut(view, cutter);
  const clip = view.style(cutter, 'clip');
  const inset = clipPathInset(view.style(cutter, 'clip-path'), box);
  const isShut =
    inset !== null &&
    (inset.top + inset.bottom >= box.height - 1 || inset.left + inset.right >= box.width - 1);
  return isShut || /rect\((0|1)px,? (0|1)px,? (0|1)px,? (0|1)px\)/.test(clip);
}

/**
 * Closed: no room is left for content along an axis, so what is in it waits to be opened. What still shows a part of its
 * content, in its padding, is not closed but too small.
 */
export function isClosed(scene: Scene, { cutter }: Loss): boolean {
  const { view } = scene;
  const isNothing = ({ width, height }: Rect) => height < 1 || width < 1;
  for (let at = cutter; at >= 0; at = view.parent(at)) {
    if (!/hidden|clip/.test(view.style(at, 'overflow-x') + view.style(at, 'overflow-y'))) continue;
    if (isSqueezedOut(view, at)) continue;
    if (isNothing(view.paddingBox(at))) return true;
    if (isNothing(view.contentBox(at)) && !showsContent(scene, at)) return true;
  }
  return false;
}

/** Whether anything of what stands in an element is seen: of a control that is not drawn, the words. */
function showsContent(scene: Scene, i: NodeIndex): boolean {
  const { view } = scene;
  return scene
    .inksIn(view.paddingBox(i))
    .some(
      ({ kind, node }) =>
        scene.contains(i, node) && (kind === 'text' || (kind === 'control' && isDrawn(view, node))),
    );
}

/** Cut after so much of its height, with a button right after it on the page that shows the rest. */
export function isFollowedByMore(scene: Scene, loss: Loss): boolean {
  const { view } = scene;
  const { cutter } = loss;
  if (!/^[\d.]+px$/.test(view.style(cutter, 'max-height')) || isCutThrough(loss)) return false;
  const siblings = view
    .childrenOf(view.parent(cutter))
    .filter((i) => view.isRendered(i) && view.isElement(i) && fixedRoot(view, i) === fixedRoot(view, cutter));
  const next = siblings[siblings.indexOf(cutter) + 1];
  if (next === undefined || !beginsBelow(view, next, cutter)) return false;
  // A link that leads elsewhere may lead to the whole of it.
  if (view.tag(next) === 'a' && !view.has(next, FLAG_PAGE_LINK))
    return view.has(next, FLAG_CONTROL) && mayBeExcerpt(view, loss);
  if (view.has(next, FLAG_FIELD)) return false;
  if (view.tag(next) === 'label') return !holdsBox(scene, next);
  return /^(button|summary)$/.test(view.tag(next)) || view.has(next, FLAG_CONTROL);
}

/** Whether something begins in the lower half of an element, or after it: arrows over slides do not. */
function beginsBelow(view: SnapshotView, i: NodeIndex, cutter: NodeIndex): boolean {
  const { y, height } = view.box(cutter);
  return view.box(i).y >= y + height / 2;
}

/** The height of two lines of text, em. */
const TWO_LINES_EM = 2;

/** Whether what is left may be an excerpt: none ends within a line or after the first, and nobody fills in a form elsewhere. */
function mayBeExcerpt(view: SnapshotView, { cutter, ink, whole }: Loss): boolean {
  if (!whole || view.has(ink.node, FLAG_FIELD)) return false;
  const font = Number.parseFloat(view.style(cutter, 'font-size'));
  return view.contentBox(cutter).height >= TWO_LINES_EM * font;
}

/** Whether a label holds what it is the label of: an answer to be ticked opens nothing. */
function holdsBox(scene: Scene, label: NodeIndex): boolean {
  for (let at = label + 1; at <= scene.lastOf(label); at++) if (scene.view.tag(at) === 'input') return true;
  return false;
}

/** Faded out at the end that something is cut off at, by a gradient or a mask: it says itself that there is more. */
export function isFaded(scene: Scene, { cutter, axis, byShape }: Loss): boolean {
  // Of a shape that only pixels tell, they tell this as well.
  if (byShape) return false;
  const { view } = scene;
  const mask = view.style(cutter, 'mask-image');
  const box = view.box(cutter);
  if (mask !== '' && mask !== 'none' && hardMask(mask, box) === null && fadesAlong(mask, axis)) return true;
  for (let at = cutter + 1; at <= scene.lastOf(cutter); at++) {
    if (view.style(at, 'position') !== 'absolute' || view.has(at, FLAG_CONTROL)) continue;
    const image = view.style(at, 'background-image');
    if (!image.includes('gradient') || !alphasIn(image).some((alpha) => alpha < 0.2)) continue;
    const fade = view.box(at);
    const atEnd = Math.abs(fade.y + fade.height - (box.y + box.height)) < 3 && fade.height >= 12;
    const atSide = Math.abs(fade.x + fade.width - (box.x + box.width)) < 3 && fade.width >= 12;
    // Over the whole box it is a shade for text on a picture.
    const isWhole = fade.height >= box.height - 3 && fade.width >= box.width - 3;
    if ((axis === 'y' ? atEnd : atSide) && !isWhole && fadesAlong(image, axis)) return true;
  }
  return false;
}

/** Straight along the other axis, a gradient fades nothing at this one's ends; where it runs otherwise is not known of all. */
function fadesAlong(mask: string, axis: 'x' | 'y'): boolean {
  const angle = gradientAngle(mask);
  return angle === null || Math.abs(axis === 'y' ? Math.cos(angle) : Math.sin(angle)) > STRAIGHT;
}

/** The sine of an angle that is as good as none. */
const STRAIGHT = 0.01;

/** A switch is at most so large, CSS px. */
const SWITCH_WIDTH = 200;
const SWITCH_HEIGHT = 64;

/** A switch of two words that slides over the real check box: one of them is out of sight. */
export function isSwitchFace(scene: Scene, { cutter, whole, axis }: Loss): boolean {
  const { view } = scene;
  const { width, height } = view.box(cutter);
  if (!whole || axis !== 'x' || width > SWITCH_WIDTH || height > SWITCH_HEIGHT) return false;
  let isShown = false;
  let hasBox = false;
  for (let at = cutter + 1; at <= scene.lastOf(cutter); at++) {
    hasBox ||= view.tag(at) === 'input' && !view.has(at, FLAG_FIELD);
    isShown ||=
      scene.painted[at] === 1 &&
      view.linesOf(at).some((line) => meets(view.lineBox(line), view.box(cutter), 2));
  }
  return hasBox && isShown;
}
