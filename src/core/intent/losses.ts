import { isOfIconRail } from './icon-rail.js';
import { isWatermark } from './watermark.js';
import { isDecoration } from './decoration.js';
import { isClosed, isFaded, isFollowedByMore, isSwitchFace, isVisuallyHidden } from './cutters.js';
import { isOpenedBySize, isWindowOnMore } from './opened.js';
import { losesRoomOnly } from './controls.js';
import { isPageOfCarousel, isRunningBy } from './carousels.js';
import { isSymbols } from './typography.js';
import { isUnderScreen } from './overlays.js';
import { isOffStage } from './off-stage.js';
import { hasOwnScrollBar } from './scroll-bars.js';
import { outAlong, type Rect } from '../geometry/rect.js';
import type { Clip } from '../geometry/clip.js';
import type { Loss } from './loss.js';
import { lossByOutline } from './outline-losses.js';
import { perSnapshot, perStyle } from '../layout/memo.js';
import { FLAG_FIELD } from '../layout/snapshot.js';
import { sceneOf, type Ink, type Scene } from '../layout/scene.js';
import { blockAround } from '../layout/ancestors.js';
import { clipsAxis } from '../layout/clip.js';
import { isOutOfFlow } from '../layout/displace.js';
import { isFixed } from '../layout/viewport-layer.js';
import { acrossLines, emOf, hasDescenders, isRead, isVertical, lettersOf } from '../layout/text-ink.js';
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
    if (!loss || isDecoration(scene, ink.node) || !isInPlace(scene, loss)) continue;
    if (isWatermark(scene, ink)) continue;
    if (!isSymbols(view, ink)) found.push(loss);
    else if (isPartOfSign(view, loss)) found.push({ ...loss, doubt: true, byEdge: true });
  }
  return found;
});

/** What is cut off a box by something that isn't made to hide it; null where nothing is. @param box as an ink that is no text */
export function boxLossOf(scene: Scene, box: Ink): Loss | null {
  const loss = lossAlong(scene, box, 'x') ?? lossAlong(scene, box, 'y');
  return loss && !isMeant(scene, loss) && isInPlace(scene, loss) ? loss : null;
}

/**
 * Whether it would be on the page if it were not cut. In what is fixed to the screen nothing is beyond it: there it is what cuts that has to be
 * in sight, or all waits beside the screen.
 */
function isInPlace(scene: Scene, { ink, cutter }: Loss): boolean {
  const isPart = isFixed(scene.view, ink.node) && scene.isOnPage(scene.view.box(cutter), ink.node);
  return isPart || scene.isOnPage(ink.full, ink.node);
}

/** Of signs in a row, some are shown by design, and one of stars may lie on another, half as wide; where a sign itself has its ink, no font says. */
function isPartOfSign(view: SnapshotView, { ink, cutter, axis, whole }: Loss): boolean {
  if (whole || isOutOfFlow(view, cutter)) return false;
  return axis === acrossLines(view, ink.node) || isOneSign(view.lineText(ink.line).trim());
}

/** Made when first asked for: the first of a process reads tables for 25 ms. */
let graphemes: Intl.Segmenter | undefined;

/** A sign may be of several code points, as one with a colour is. */
function isOneSign(text: string): boolean {
  graphemes ??= new Intl.Segmenter('en', { granularity: 'grapheme' });
  const [first] = graphemes.segment(text);
  return first?.segment === text;
}

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
  return {
    ink,
    cutter,
    axis,
    px: Math.min(px, size),
    whole: isAll(px, size),
    rect,
    ...(slight && { slight }),
  };
}

/** Sums of edges are off by less, CSS px. */
const ROUNDING = 0.01;

function isAll(px: number, size: number): boolean {
  return px >= size - ROUNDING;
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
  return { ink, cutter, axis: 'x', px, whole: isAll(px, rect.width), rect };
}

/** So much of what stands in a field has to show, of its width: less is no rounding, and a letter is cut through. */
const LEAST_OF_FIELD = 0.9;

const wantedOf = perSnapshot(({ snapshot: { shortFields } }) => byLine(shortFields));
const heightWantedOf = perSnapshot(({ snapshot: { lowFields } }) => byLine(lowFields));

function byLine(pairs: Float64Array): ReadonlyMap<number, number> {
  return new Map(Array.from({ length: pairs.length / 2 }, (_, at) => [pairs[2 * at]!, pairs[2 * at + 1]!]));
}

/** What a field shows too little of: a placeholder can't be scrolled to, and nobody scrolls to the end of a number. */
function lossInField({ view }: Scene, ink: Ink): Loss | null {
  const { shortFields, lowFields } = view.snapshot;
  if (shortFields.length + lowFields.length === 0 || ink.kind !== 'text') return null;
  const of = { ink, cutter: ink.node, whole: false, rect: ink.full, inField: true };
  const high = heightWantedOf(view).get(ink.line);
  if (high !== undefined) return { ...of, axis: 'y', px: high - view.contentBox(ink.node).height };
  const wanted = wantedOf(view).get(ink.line);
  if (wanted === undefined || ink.full.width >= LEAST_OF_FIELD * wanted) return null;
  return { ...of, axis: 'x', px: wanted - ink.full.width };
}

const endsInEllipsis = perStyle((view, i) => view.style(i, 'text-overflow') === 'ellipsis');

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
  const isPlain = !view.has(node, FLAG_FIELD) && isRead(view, line);
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
  return (
    isVisuallyHidden(scene, loss.cutter) ||
    isClosed(scene, loss) ||
    isWindowOnMore(scene, loss) ||
    isOpenedBySize(scene, loss) ||
    isFaded(scene, loss) ||
    isFollowedByMore(scene, loss) ||
    isSwitchFace(scene, loss) ||
    isOfIconRail(scene, loss) ||
    // No slide waits behind a shape.
    (!loss.byOutline && isPageOfCarousel(scene, loss)) ||
    isRunningBy(scene, loss) ||
    isOffStage(scene, loss) ||
    hasOwnScrollBar(scene, loss) ||
    // The page itself is locked for as long as a dialog is open over it.
    (loss.cutter <= scene.view.body && isUnderScreen(scene, loss.ink))
  );
}
