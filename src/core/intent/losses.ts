import { isDecoration } from './decoration.js';
import {
  isClosed,
  isFaded,
  isFollowedByMore,
  isSwitchFace,
  isVisuallyHidden,
  isWindowOnMore,
} from './cutters.js';
import { losesRoomOnly } from './controls.js';
import { isPageOfCarousel, isRunningBy } from './carousels.js';
import { isSymbols } from './typography.js';
import { isOffStage } from './off-stage.js';
import { hasOwnScrollBar } from './scroll-bars.js';
import { outAlong, type Rect } from '../geometry/rect.js';
import type { Clip } from '../geometry/clip.js';
import type { Loss } from './loss.js';
import { perSnapshot, perStyle } from '../layout/memo.js';
import { FLAG_FIELD } from '../layout/snapshot.js';
import type { Outline } from '../layout/outlines.js';
import { sceneOf, type Ink, type Scene } from '../layout/scene.js';
import { blockAround } from '../layout/ancestors.js';
import { clipsAxis } from '../layout/clip.js';
import { acrossLines, emOf, hasDescenders, isVertical, lettersOf } from '../layout/text-ink.js';
import type { SnapshotView } from '../layout/view.js';

/** Letters may lose this much: an overshoot, a side bearing. */
const LEAST_ALONG = 2;
const LEAST_EM = 0.15;
/** However large they are, so much of letters is seen to be gone, CSS px. */
const LEAST_ACROSS_PX = 2.9;
/** Less is not seen on any letter. */
const LEAST_SEEN_PX = 1.5;
/** Of the length of descenders. */
const LEAST_OF_FEET = 0.4;
/** Of a control or a picture. */
const LEAST_BOX_PX = 3;

/** Everything that is cut off by something that isn't made to hide it, over all inks of a page. */
export function lossesOf({ view }: Scene): readonly Loss[] {
  return certain(view);
}

/** What is cut by so little, as shapes are known, that pixels have to tell whether letters are. */
export function doubtfulLosses({ view }: Scene): readonly Loss[] {
  return losses(view).filter(({ doubt }) => doubt);
}

const certain = perSnapshot((view) => losses(view).filter(({ doubt }) => !doubt));
const losses = perSnapshot((view): Loss[] => {
  const scene = sceneOf(view);
  const found: Loss[] = [];
  for (const ink of scene.inks) {
    const loss = lossesTo(scene, ink).find(
      (each) => !isMeant(scene, each) && !losesRoomOnly(scene, ink, each, (inner) => isCut(scene, inner)),
    );
    if (loss && !isDecoration(scene, ink.node) && !isSymbols(view, ink)) found.push(loss);
  }
  return found;
});

const NONE: readonly Loss[] = [];

function lossesTo(scene: Scene, ink: Ink): readonly Loss[] {
  const ellipsis = lossToEllipsis(scene, ink);
  const x = lossAlong(scene, ink, 'x');
  const y = lossAlong(scene, ink, 'y');
  const outline = lossByOutline(scene, ink);
  const field = lossInField(scene, ink);
  // Nearly all content is whole.
  if (!ellipsis && !x && !y && !outline && !field) return NONE;
  return [ellipsis, x, y, outline, field].filter((loss) => loss !== null);
}

function isCut(scene: Scene, ink: Ink): boolean {
  return lossAlong(scene, ink, 'x') !== null || lossAlong(scene, ink, 'y') !== null;
}

function lossAlong(scene: Scene, ink: Ink, axis: 'x' | 'y'): Loss | null {
  const { view, clips } = scene;
  const isText = ink.kind === 'text';
  const clip = isText ? clips.lostContent(ink.node) : clips.lostBox(ink.node);
  const isFree =
    axis === 'x'
      ? clip.left === -Infinity && clip.right === Infinity
      : clip.top === -Infinity && clip.bottom === Infinity;
  if (isFree) return null;
  const rect = isText ? lettersOf(view, ink.line) : ink.full;
  const px = beyond(rect, clip, axis);
  const size = axis === 'x' ? rect.width : rect.height;
  const isBelow = axis === 'y' && rect.y + rect.height - clip.bottom >= px;
  const least = isText ? leastOfText(view, ink, axis, isBelow) : LEAST_BOX_PX;
  if (px <= least) return null;
  // Not merely the nearest that clips: the nearest that takes so much.
  const cutters = isText ? clips.cuttersOfContent(ink.node, axis) : clips.cuttersOfBox(ink.node, axis);
  const cutter = first(cutters, (each) => beyond(rect, each.clip, axis) > least)?.node;
  if (cutter === undefined) return null;
  const slight = isText && axis === acrossLines(view, ink.node) && px <= leastAcross(view, ink.line);
  return { ink, cutter, axis, px: Math.min(px, size), whole: px >= size, rect, ...(slight && { slight }) };
}

/** The room of an ellipsis, em. */
const ELLIPSIS_EM = 0.8;

/** CSS Overflow 4, section 5.1: an ellipsis stands within the content box, and takes its room from the words. */
function lossToEllipsis(scene: Scene, ink: Ink): Loss | null {
  const { view } = scene;
  if (ink.kind !== 'text' || isVertical(view, ink.node)) return null;
  const cutter = blockAround(view, ink.node);
  if (!endsInEllipsis(view, cutter) || !clipsAxis(view, cutter, 'x')) return null;
  const rect = lettersOf(view, ink.line);
  const over = outAlong(rect, view.contentBox(cutter), 'x');
  if (over <= 1) return null;
  const px = Math.min(rect.width, over + ELLIPSIS_EM * emOf(view, ink.line));
  return { ink, cutter, axis: 'x', px, whole: px >= rect.width, rect };
}

/** So much of what stands in a field has to show, of its width: less is no rounding, and a letter is cut through. */
const LEAST_OF_FIELD = 0.9;

const wantedOf = perSnapshot(
  ({ snapshot: { shortFields } }): ReadonlyMap<number, number> =>
    new Map(
      Array.from({ length: shortFields.length / 2 }, (_, at) => [
        shortFields[2 * at]!,
        shortFields[2 * at + 1]!,
      ]),
    ),
);

/** What a field shows too little of: a placeholder can't be scrolled to, and nobody scrolls to the end of a number. */
function lossInField({ view }: Scene, ink: Ink): Loss | null {
  if (view.snapshot.shortFields.length === 0 || ink.kind !== 'text') return null;
  const wanted = wantedOf(view).get(ink.line);
  if (wanted === undefined || ink.full.width >= LEAST_OF_FIELD * wanted) return null;
  const px = wanted - ink.full.width;
  return { ink, cutter: ink.node, axis: 'x', px, whole: false, rect: ink.full, inField: true };
}

const endsInEllipsis = perStyle((view, i) => view.style(i, 'text-overflow') === 'ellipsis');

/** So much of a line has to be gone beyond doubt, em: letters keep clear of the corners of their box. Less may be a letter's foot. */
const LEAST_OUTLINE_EM = 0.4;
const SLIGHT_OUTLINE_EM = 0.12;
/** What a shape hides nearly whole is waiting to be shown, unless the shape shows other text. */
const NEARLY = 0.9;

/** Letters that stand outside of a rounded corner or a shape. */
function lossByOutline(scene: Scene, ink: Ink): Loss | null {
  if (!ink.shown) return null;
  if (ink.kind === 'picture') return lossToShape(scene, ink);
  if (ink.kind !== 'text') return null;
  const em = emOf(scene.view, ink.line);
  let slight: Loss | null = null;
  for (const outline of scene.outlinesAround(ink.node)) {
    const { rect, lost } = lostOutside(scene, ink, outline);
    if (lost <= SLIGHT_OUTLINE_EM * em) continue;
    const whole = lost >= NEARLY * rect.width;
    if (whole && !showsText(scene, outline)) continue;
    const loss: Loss = { ink, cutter: outline.node, axis: 'x', px: lost, whole, rect };
    if (lost > LEAST_OUTLINE_EM * em) return loss;
    slight ??= { ...loss, doubt: true };
  }
  return slight;
}

/** Of a picture, shapes that are meant leave half at the least: a circle, a hexagon, a slanted edge, a triangle. */
const LEAST_OF_PICTURE = 0.45;
/** What a shape hides nearly whole is waiting to be shown. */
const HIDDEN_SHARE = 0.1;
/** So many points along each side of a picture. */
const POINTS = 16;

/** A picture most of which a `clip-path` takes away. */
function lossToShape(scene: Scene, ink: Ink): Loss | null {
  const rect = ink.full;
  const places = Array.from({ length: POINTS }, (_, i) => (i + 0.5) / POINTS);
  for (const { node, holds } of scene.outlinesAround(ink.node)) {
    if (scene.view.style(node, 'clip-path') === 'none') continue;
    const held = places.flatMap((x) =>
      places.filter((y) => holds(rect.x + x * rect.width, rect.y + y * rect.height)),
    ).length;
    const share = held / POINTS ** 2;
    if (share < HIDDEN_SHARE || share >= LEAST_OF_PICTURE) continue;
    return { ink, cutter: node, axis: 'x', px: (1 - share) * rect.width, whole: false, rect, byShape: true };
  }
  return null;
}

/** What a letter counts that loses only its head or its feet. */
const SHAVED_SHARE = 0.5;

/** How much of a line is outside, CSS px, found by looking at points along it. */
function lostOutside({ view }: Scene, ink: Ink, { holds }: Outline): { rect: Rect; lost: number } {
  const rect = lettersOf(view, ink.line);
  const step = Math.max(1, Math.min(emOf(view, ink.line) / 8, rect.width / 8));
  const heights = [0.125, 0.375, 0.625, 0.875].map((share) => rect.y + share * rect.height);
  let [halved, shaved] = [0, 0];
  for (let x = rect.x + step / 2; x < rect.x + rect.width; x += step) {
    const outside = heights.filter((y) => !holds(x, y)).length;
    if (outside >= 2) halved += step;
    if (outside >= 1) shaved += step;
  }
  // Letters without their feet can be read for a while, and are seen to be cut all the same.
  return { rect, lost: Math.min(rect.width, Math.max(halved, SHAVED_SHARE * shaved)) };
}

function showsText(scene: Scene, outline: Outline): boolean {
  return scene
    .inksIn(scene.view.box(outline.node))
    .some(
      (ink) =>
        ink.kind === 'text' &&
        scene.contains(outline.node, ink.node) &&
        lostOutside(scene, ink, outline).lost <= LEAST_OUTLINE_EM * emOf(scene.view, ink.line),
    );
}

/** What letters of a line may lose of their height before it is seen, CSS px. */
export function leastAcross(view: SnapshotView, line: number): number {
  return Math.max(LEAST_SEEN_PX, Math.min(LEAST_EM * emOf(view, line), LEAST_ACROSS_PX));
}

function leastOfText(view: SnapshotView, { node, line }: Ink, axis: 'x' | 'y', isBelow: boolean): number {
  if (axis !== acrossLines(view, node)) return LEAST_ALONG;
  const least = leastAcross(view, line);
  const drop = view.lineFace(line)?.drop;
  // Letters that are known to have feet, and how long these are, lose them for all to see.
  // Where words stand in a field, its box has the browser's own say.
  const isPlain = !view.has(node, FLAG_FIELD) && view.linesOf(node).length === 1;
  const isKnown = isBelow && isPlain && drop !== undefined && hasDescenders(view, line);
  return isKnown ? Math.min(least, Math.max(LEAST_SEEN_PX, LEAST_OF_FEET * drop * emOf(view, line))) : least;
}

function first<T>(all: Iterable<T>, holds: (each: T) => boolean): T | undefined {
  for (const each of all) if (holds(each)) return each;
  return undefined;
}

/** How far a rectangle reaches past a clip along an axis, on its worse side. */
function beyond(rect: Rect, clip: Clip, axis: 'x' | 'y'): number {
  return axis === 'x'
    ? Math.max(clip.left - rect.x, rect.x + rect.width - clip.right)
    : Math.max(clip.top - rect.y, rect.y + rect.height - clip.bottom);
}

function isMeant(scene: Scene, loss: Loss): boolean {
  const { cutter, ink } = loss;
  return (
    isVisuallyHidden(scene, cutter) ||
    isClosed(scene, loss) ||
    isWindowOnMore(scene, ink.node) ||
    isFaded(scene, cutter) ||
    isFollowedByMore(scene, cutter) ||
    isSwitchFace(scene, loss) ||
    isPageOfCarousel(scene, loss) ||
    isRunningBy(scene, loss) ||
    isOffStage(scene, loss) ||
    hasOwnScrollBar(scene, loss)
  );
}
