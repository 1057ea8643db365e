import { area, intersect, liesWithin, outAlong, sizeAlong, type Rect } from '../geometry/rect.js';
import { RectIndex } from '../geometry/rect-index.js';
import { isDecoration } from '../intent/decoration.js';
import { isSymbols } from '../intent/typography.js';
import { blockAround } from '../layout/ancestors.js';
import { cut } from '../layout/clips.js';
import { branches, displacedRoot } from '../layout/branches.js';
import { displacementOf } from '../layout/displace.js';
import { isFlow, isInline } from '../layout/displays.js';
import { perSnapshot } from '../layout/memo.js';
import { intoOtherCell, isInMeetingItem } from '../layout/grid-cells.js';
import { hasOwnWidth } from '../layout/own-size.js';
import { isDrawn } from '../layout/paint.js';
import { sceneOf, type Ink, type Scene } from '../layout/scene.js';
import { FLAG_CONTROL, FLAG_PICTURE, FLAG_REPLACED } from '../layout/snapshot.js';
import { emOf, isVertical, lettersOf } from '../layout/text-ink.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { stayingRoot } from '../layout/viewport-layer.js';
import { isSmallPicture } from './marks-on-words.js';
import { tooLowFor } from './too-low.js';

/** Letters lie on a foreign box by so much, CSS px: less is a rounding, or the air round letters. */
const LEAST_PX = 3;
/** And across their line by so much of its height. */
const LEAST_ACROSS = 0.3;
/** Of where they meet, so much lies outside of what holds the one that has run out. */
const LEAST_OUTSIDE = 0.5;
/** What is lower or narrower holds nothing: a box without a height may be there to lay a picture under words. Of what stands in it. */
const LEAST_HOLDER = 0.15;

/** What has run out of its part, along which axis and out of what. */
interface RanOut {
  readonly culprit: NodeIndex;
  readonly axis: 'x' | 'y';
  readonly holder: NodeIndex;
}

/** Words on a picture or on a drawn box that is no part of theirs, since one of the two has run out of the part that holds it. */
export interface Meeting extends RanOut {
  /** The picture or box, and where it is: CSS px of the page. */
  readonly box: NodeIndex;
  readonly words: Ink;
  readonly common: Rect;
  /** Which of the two ran out; or that a margin has pulled the box there, or moved the words over its edge. */
  readonly ran: 'box' | 'words' | 'pulled' | 'moved';
}

/**
 * Words that are drawn on a foreign picture or box, where neither was moved there: parts that stand in the flow, side by side or one
 * below the other, do not meet (CSS 2.2, section 9.4), unless what stands in one of them runs out of it. What lies over words is found by
 * what it hides.
 */
export const meetingsOf = perSnapshot((view): readonly Meeting[] => {
  const scene = sceneOf(view);
  const found: Meeting[] = [];
  const strays = scene.inks.filter(
    (ink) => ink.kind === 'text' && ink.shown && (runsOut(view, ink) || shifted(view)[ink.node] === 1),
  );
  const strayIndex = new RectIndex(strays.map(({ shown }) => shown));
  for (let box = view.body + 1; box < view.count; box++) {
    const rect = isSeenBox(scene, box) ? cut(view.box(box), scene.clips.shownBox(box)) : null;
    if (!rect) continue;
    const isOut =
      reachesOut(view, box) ||
      isInMeetingItem(view, box) ||
      isInColumn(view, box) ||
      pulledUp(view)[box] === 1;
    // What has its place can only be run onto.
    const near = isOut ? scene.inksIn(rect) : strayIndex.search(rect).map((at) => strays[at]!);
    for (const words of near) {
      if (words.kind !== 'text' || words.rank < scene.order.box[box]! || scene.contains(box, words.node))
        continue;
      const meeting = meetingOf(scene, box, rect, words);
      if (meeting) found.push(meeting);
    }
  }
  return found;
});

/** A picture, or a box that is drawn and no control: those are control-overlap's. */
function isSeenBox(scene: Scene, i: NodeIndex): boolean {
  const { view } = scene;
  if (!scene.painted[i] || view.has(i, FLAG_CONTROL) || isDecoration(scene, i)) return false;
  if (view.has(i, FLAG_PICTURE | FLAG_REPLACED)) return !isSmallPicture(view, i);
  return !isInline(view, i) && isDrawn(view, i);
}

/** By element: whether it, or something that it stands in, holds something of its containing element. Those come before it. */
function orAround(view: SnapshotView, holds: (i: NodeIndex, around: NodeIndex) => boolean): Uint8Array {
  const found = new Uint8Array(view.count);
  for (let i = view.body + 1; i < view.count; i++) {
    const around = view.containingElement(i);
    found[i] = found[around] === 1 || holds(i, around) ? 1 : 0;
  }
  return found;
}

/** By element: whether it, or something that it stands in, reaches out of what that stands in. */
const reachOut = perSnapshot((view) =>
  orAround(view, (i, around) => around > view.body && !liesWithin(view.box(i), view.box(around), LEAST_PX)),
);
const reachesOut = (view: SnapshotView, i: NodeIndex) => reachOut(view)[i] === 1;

function runsOut(view: SnapshotView, words: Ink): boolean {
  const block = blockAround(view, words.node);
  return !liesWithin(words.full, view.box(block), LEAST_PX) || reachesOut(view, block);
}

/** A drawn box, or a picture, that has run out of its part and lies on another drawn part, or under it. */
export interface BoxMeeting extends RanOut {
  readonly box: NodeIndex;
  readonly other: NodeIndex;
  readonly common: Rect;
}

/** The same of boxes, whose words do not meet. */
export const boxMeetingsOf = perSnapshot((view): readonly BoxMeeting[] => {
  const scene = sceneOf(view);
  const told = new Set(meetingsOf(view).flatMap(({ box, culprit }) => [box, culprit]));
  const found: BoxMeeting[] = [];
  for (let box = view.body + 1; box < view.count; box++) {
    if (told.has(box) || !isSeenBox(scene, box) || !reachesOut(view, box)) continue;
    const rect = cut(view.box(box), scene.clips.shownBox(box));
    for (const { node: other, rect: covered } of rect ? scene.coversIn(rect) : []) {
      const common = intersect(rect!, covered);
      const parts = common && branches(scene, box, other);
      if (!parts || Math.min(common.width, common.height) < LEAST_PX || !isSeenBox(scene, other)) continue;
      const [around] = parts;
      if (around === box || isMoved(scene, box, other, common.width) || holdsForeign(scene, box, common))
        continue;
      if (!isOutside(view, common, around, view.box(box))) continue;
      found.push({ box, other, common, ...boxOut(view, box, common, around) });
      break;
    }
  }
  return found;
});

/** Whether something that is seen or used and is not the box's own lies where it meets another one: what it does to that is told. */
function holdsForeign(scene: Scene, box: NodeIndex, common: Rect): boolean {
  return scene.inksIn(common).some(({ node }) => !scene.contains(box, node));
}

/** Of two of which one stays on the screen, the other passes by. */
function passBy(view: SnapshotView, a: NodeIndex, b: NodeIndex): boolean {
  return stayingRoot(view, a) !== stayingRoot(view, b);
}

/** @param across how wide the two meet: a row that makes up for its gutters has not been moved there, CSS px */
function isMoved(scene: Scene, a: NodeIndex, b: NodeIndex, across: number): boolean {
  const isDisplaced = (i: NodeIndex, other: NodeIndex) => displacedRoot(scene, i, other, across) >= 0;
  return passBy(scene.view, a, b) || isDisplaced(a, b) || isDisplaced(b, a);
}

function meetingOf(scene: Scene, box: NodeIndex, rect: Rect, words: Ink): Meeting | null {
  const { view } = scene;
  const letters = intersect(lettersOf(view, words.line), words.shown!);
  const common = letters && intersect(letters, rect);
  if (!common || Math.min(common.width, common.height) < LEAST_PX) return null;
  if (common.height < LEAST_ACROSS * words.full.height || isSymbols(view, words)) return null;
  const parts = branches(scene, box, words.node);
  if (!parts || isDecoration(scene, words.node) || hasOwnGround(scene, box, words, common)) return null;
  if (passBy(view, box, words.node)) return null;
  const meet = { box, words, common };
  const movedWords = displacedRoot(scene, words.node, box, common.width);
  if (movedWords >= 0) {
    if (!isShifted(view, movedWords) || !isCutAcross(view, letters, rect, words)) return null;
    if (meetsWords(scene, letters, movedWords)) return null;
    return { ...meet, ran: 'moved', holder: view.parent(movedWords), axis: 'y', culprit: movedWords };
  }
  const moved = displacedRoot(scene, box, words.node, common.width);
  if (moved >= 0)
    return isPulledCard(scene, moved, box)
      ? { ...meet, ran: 'pulled', holder: view.parent(moved), axis: 'y', culprit: moved }
      : null;
  const [around, beside] = parts;
  if (around !== box && isOutside(view, common, around, view.box(box)))
    return { ...meet, ran: 'box', ...boxOut(view, box, common, around) };
  if (isOutside(view, common, beside, words.full)) {
    const block = blockAround(view, words.node);
    return { ...meet, ran: 'words', ...outOfPart(view, words.full, words.node, common, beside, block) };
  }
  const holder = view.parent(around);
  if (around === box && isInColumn(view, box)) {
    const puller = pullerBetween(view, box, beside);
    if (puller < 0) return { ...meet, ran: 'box', holder, axis: 'x', culprit: box };
    return isCutAcross(view, letters, rect, words)
      ? { ...meet, ran: 'moved', holder, axis: 'y', culprit: puller }
      : null;
  }
  const axis = intoOtherCell(view, around, beside);
  return axis && { ...meet, ran: 'box', holder, axis, culprit: axis === 'x' ? around : holder };
}

/** What stands between two children of one element, or is the latter of them, and pulls up with it what follows; −1 where nothing does. */
function pullerBetween(view: SnapshotView, from: NodeIndex, to: NodeIndex): NodeIndex {
  const between = view.childrenOf(view.parent(from)).filter((i) => i > from && i <= to);
  return (
    between.find((i) => view.margins(i)[0] <= -LEAST_PX || (i < to && view.margins(i)[2] <= -LEAST_PX)) ?? -1
  );
}

/** Larger letters are set over the edge of a picture on purpose, CSS px. */
const MOST_SET_ACROSS = 24;

/** Whether the upper or the lower edge of a box runs through letters of an ordinary size, a good part of them on either side: no purpose puts words so. */
function isCutAcross(view: SnapshotView, letters: Rect, box: Rect, words: Ink): boolean {
  if (emOf(view, words.line) > MOST_SET_ACROSS || isVertical(view, words.node)) return false;
  return [box.y, box.y + box.height].some(
    (edge) => Math.min(edge - letters.y, letters.y + letters.height - edge) >= LEAST_PX,
  );
}

/** Whether letters meet words that stand outside of an element: of these, text-overlap tells. */
function meetsWords(scene: Scene, letters: Rect, moved: NodeIndex): boolean {
  return scene.inksIn(letters).some(({ kind, node }) => kind === 'text' && !scene.contains(moved, node));
}

/** Whether words stand on something of their own part that lies on the box. */
function hasOwnGround(scene: Scene, box: NodeIndex, words: Ink, common: Rect): boolean {
  const rank = scene.order.box[box]!;
  return scene
    .coversIn(common)
    .some(
      (cover) =>
        cover.rank > rank &&
        cover.rank < words.rank &&
        scene.contains(cover.node, words.node) &&
        !scene.contains(cover.node, box) &&
        area(intersect(cover.rect, common) ?? NOWHERE) >= LEAST_OUTSIDE * area(common),
    );
}

const NOWHERE: Rect = { x: 0, y: 0, width: 0, height: 0 };

/** By element: whether a margin pulls it, or something that it stands in, up over what comes before that. */
const pulledUp = perSnapshot((view) => orAround(view, (i) => view.margins(i)[0] <= -LEAST_PX));

/** Stands in the flow, and has been moved up or down in it, by a margin or an offset. */
function isShifted(view: SnapshotView, i: NodeIndex): boolean {
  const displacement = displacementOf(view, i);
  if (displacement !== 'negative-margin') return displacement === 'offset';
  const [top, , bottom] = view.margins(i);
  return Math.min(top, bottom) <= -LEAST_PX;
}

/** By element: whether it was moved so, or something that it stands in. */
const shifted = perSnapshot((view) => orAround(view, (i) => isShifted(view, i)));

/** A box with words of its own that a margin has pulled up: a bar without any may be there to mark the words that it lies under. */
function isPulledCard(scene: Scene, moved: NodeIndex, box: NodeIndex): boolean {
  const { view } = scene;
  if (displacementOf(view, moved) !== 'negative-margin' || view.margins(moved)[0] > -LEAST_PX) return false;
  const isPicture = view.has(box, FLAG_PICTURE | FLAG_REPLACED);
  return (
    !isPicture &&
    scene.inksIn(view.box(box)).some(({ kind, node }) => kind === 'text' && scene.contains(box, node))
  );
}

/** Whether a spot lies outside of the part that holds something. */
function isOutside(view: SnapshotView, spot: Rect, part: NodeIndex, held: Rect): boolean {
  const box = view.box(part);
  if (box.width < LEAST_HOLDER * held.width || box.height < LEAST_HOLDER * held.height) return false;
  const inside = intersect(spot, box);
  return !inside || area(inside) < (1 - LEAST_OUTSIDE) * area(spot);
}

/** A box that has run out of a part, seen at a spot. */
function boxOut(view: SnapshotView, box: NodeIndex, spot: Rect, part: NodeIndex): RanOut {
  return outOfPart(view, view.box(box), box, spot, part, box);
}

/** @param sideways what is at fault for what runs out sideways; downwards it is what is too low */
function outOfPart(
  view: SnapshotView,
  content: Rect,
  from: NodeIndex,
  spot: Rect,
  part: NodeIndex,
  sideways: NodeIndex,
): RanOut {
  const axis = axisOut(spot, view.box(part));
  return { holder: part, axis, culprit: axis === 'x' ? sideways : tooLowFor(view, content, from, part) };
}

/** The axis along which a spot lies farther out of a box. */
function axisOut(spot: Rect, box: Rect): 'x' | 'y' {
  const share = (axis: 'x' | 'y') => outAlong(spot, box, axis) / sizeAlong(spot, axis);
  return share('x') >= share('y') ? 'x' : 'y';
}

/** A box of a width of its own among others of which each begins below the one before it: in columns of text, it may be wider than its own. */
function isInColumn(view: SnapshotView, i: NodeIndex): boolean {
  return isFlow(view, view.parent(i)) && (view.has(i, FLAG_REPLACED) || hasOwnWidth(view, i));
}
