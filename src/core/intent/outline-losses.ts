import { liesWithin, type Rect } from '../geometry/rect.js';
import type { Loss } from './loss.js';
import type { KnownOutline, Outline } from '../layout/outlines.js';
import { isDrawn } from '../layout/paint.js';
import type { Ink, Scene } from '../layout/scene.js';
import { emOf, lettersOf } from '../layout/text-ink.js';

/** So much of a line has to be gone beyond doubt, em: letters keep clear of the corners of their box. Less may be a letter's foot. */
const LEAST_OUTLINE_EM = 0.4;
const SLIGHT_OUTLINE_EM = 0.12;
/** What a shape hides nearly whole is waiting to be shown, unless the shape shows other text. */
const NEARLY = 0.9;

/** What stands outside of a rounded corner or a shape. */
export function lossByOutline(scene: Scene, ink: Ink): Loss | null {
  if (!ink.shown) return null;
  const loss = ink.kind === 'text' ? lossOfLetters(scene, ink) : lossToShape(scene, ink);
  return loss && { ...loss, byOutline: true };
}

function lossOfLetters(scene: Scene, ink: Ink): Loss | null {
  const em = emOf(scene.view, ink.line);
  let slight: Loss | null = null;
  for (const outline of scene.outlinesAround(ink.node)) {
    if (!isKnown(outline)) {
      slight ??= cutFreely(scene, ink, outline);
      continue;
    }
    const { rect, lost, gone } = lostOutside(scene, ink, outline);
    if (lost <= SLIGHT_OUTLINE_EM * em) continue;
    const whole = gone >= NEARLY * rect.width;
    if (whole && !showsText(scene, outline)) continue;
    const loss: Loss = { ink, cutter: outline.node, axis: 'x', px: lost, whole, rect };
    if (lost > LEAST_OUTLINE_EM * em) return loss;
    slight ??= { ...loss, doubt: true };
  }
  return slight;
}

function isKnown(outline: Outline): outline is KnownOutline {
  return outline.holds !== null;
}

/** A line in a shape that is drawn freely: pixels tell what it loses. */
function cutFreely({ view }: Scene, ink: Ink, { node }: Outline): Loss {
  const rect = lettersOf(view, ink.line);
  const { width: px } = rect;
  return { ink, cutter: node, axis: 'x', px, whole: false, rect, doubt: true, byShape: true };
}

/** Of a picture, shapes that are meant leave half at the least: a circle, a hexagon, a slanted edge, a triangle. */
const LEAST_OF_PICTURE = 0.45;
/** Of a control, no more than its corners go; round corners of what it stands in may be its own as well. */
const LEAST_OF_CONTROL = 0.9;
const LEAST_IN_CORNERS = 0.75;
/** What a shape hides nearly whole is waiting to be shown. */
const HIDDEN_SHARE = 0.1;
/** So many points along each side of a picture or a control. */
const POINTS = 16;
/** A shape round a control that reaches no farther than this, CSS px, is the form of the control. */
const FORM_PX = 8;

/** A picture most of which a `clip-path` takes away, or a control that loses more than its corners to one round it, or to a round corner. */
function lossToShape(scene: Scene, ink: Ink): Loss | null {
  const { view } = scene;
  const isControl = ink.kind === 'control';
  const rect = ink.full;
  for (const outline of scene.outlinesAround(ink.node)) {
    if (!isKnown(outline)) continue;
    const { node } = outline;
    const isCut = view.style(node, 'clip-path') !== 'none';
    if (!isCut && !(isControl && isDrawn(view, ink.node))) continue;
    if (isControl && liesWithin(view.box(node), rect, FORM_PX)) continue;
    const share = shareWithin(outline, rect);
    const least = isControl ? (isCut ? LEAST_OF_CONTROL : LEAST_IN_CORNERS) : LEAST_OF_PICTURE;
    if (share >= least) continue;
    if (share < HIDDEN_SHARE && !(isControl && showsText(scene, outline))) continue;
    return {
      ink,
      cutter: node,
      axis: 'x',
      px: (1 - share) * rect.width,
      whole: share === 0,
      rect,
      byShape: true,
    };
  }
  return null;
}

function shareWithin({ holds }: KnownOutline, rect: Rect): number {
  const places = Array.from({ length: POINTS }, (_, i) => (i + 0.5) / POINTS);
  const held = places.flatMap((x) =>
    places.filter((y) => holds(rect.x + x * rect.width, rect.y + y * rect.height)),
  );
  return held.length / POINTS ** 2;
}

/** What a letter counts that loses only its head or its feet. */
const SHAVED_SHARE = 0.5;

/**
 * How much of a line is outside, CSS px, found by looking at points along it: what can be read no more, and of that what nothing, or a tip, is
 * left of.
 */
function lostOutside(
  { view }: Scene,
  ink: Ink,
  { holds }: KnownOutline,
): { rect: Rect; lost: number; gone: number } {
  const rect = lettersOf(view, ink.line);
  const step = Math.max(1, Math.min(emOf(view, ink.line) / 8, rect.width / 8));
  const heights = [0.125, 0.375, 0.625, 0.875].map((share) => rect.y + share * rect.height);
  let [gone, halved, shaved] = [0, 0, 0];
  for (let x = rect.x + step / 2; x < rect.x + rect.width; x += step) {
    const outside = heights.filter((y) => !holds(x, y)).length;
    if (outside >= 3) gone += step;
    if (outside >= 2) halved += step;
    if (outside >= 1) shaved += step;
  }
  // Letters without their feet can be read for a while, and are seen to be cut all the same.
  return { rect, lost: Math.min(rect.width, Math.max(halved, SHAVED_SHARE * shaved)), gone };
}

function showsText(scene: Scene, outline: KnownOutline): boolean {
  return scene
    .inksIn(scene.view.box(outline.node))
    .some(
      (ink) =>
        ink.kind === 'text' &&
        scene.contains(outline.node, ink.node) &&
        lostOutside(scene, ink, outline).lost <= LEAST_OUTLINE_EM * emOf(scene.view, ink.line),
    );
}
