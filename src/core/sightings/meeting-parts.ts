import { area, intersect, outAlong, outOf, sizeAlong, type Rect } from '../geometry/rect.js';
import { isDecoration } from '../intent/decoration.js';
import { isSymbols } from '../intent/typography.js';
import { blockAround } from '../layout/ancestors.js';
import { branches, displacedRoot } from '../layout/displace.js';
import { isInline } from '../layout/displays.js';
import { perNode, perSnapshot, perStyle } from '../layout/memo.js';
import { hasOwnWidth } from '../layout/own-size.js';
import { isDrawn } from '../layout/paint.js';
import { sceneOf, type Ink, type Scene } from '../layout/scene.js';
import { cut } from '../layout/clips.js';
import { FLAG_CONTROL, FLAG_PICTURE, FLAG_REPLACED } from '../layout/snapshot.js';
import { lettersOf } from '../layout/text-ink.js';
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

/** Words on a picture or on a drawn box that is no part of theirs, since one of the two has run out of the part that holds it. */
export interface Meeting {
  readonly culprit: NodeIndex;
  /** The picture or box, and where it is: CSS px of the page. */
  readonly box: NodeIndex;
  readonly words: Ink;
  readonly common: Rect;
  readonly axis: 'x' | 'y';
  /** Which of the two ran out, and out of what. */
  readonly ran: 'box' | 'words';
  readonly holder: NodeIndex;
}

/**
 * Words that are drawn on a foreign picture or box, where neither was moved there: parts that stand in the flow, side by side or one
 * below the other, do not meet (CSS 2.2, section 9.4), unless what stands in one of them runs out of it. What lies over words is found by
 * what it hides.
 */
export const meetingsOf = perSnapshot((view): readonly Meeting[] => {
  const scene = sceneOf(view);
  const found: Meeting[] = [];
  for (let box = view.body + 1; box < view.count; box++) {
    const rect = isSeenBox(scene, box) ? cut(view.box(box), scene.clips.shownBox(box)) : null;
    if (!rect) continue;
    const isOut = reachesOut(view, box) || isOwnSizedItem(view, box) || isInColumn(view, box);
    for (const words of scene.inksIn(rect)) {
      if (words.kind !== 'text' || words.rank < scene.order.box[box]!) continue;
      if (scene.contains(box, words.node) || (!isOut && !runsOut(view, words))) continue;
      const meeting = meetingOf(scene, box, rect, words);
      if (meeting) found.push(meeting);
    }
  }
  return found;
});

/** A picture, or a box that is drawn and no control: those are control-overlap's. */
function isSeenBox(scene: Scene, i: NodeIndex): boolean {
  const { view } = scene;
  if (!scene.painted[i] || view.has(i, FLAG_CONTROL) || isInline(view, i)) return false;
  const isSeen = view.has(i, FLAG_PICTURE | FLAG_REPLACED) ? !isSmallPicture(view, i) : isDrawn(view, i);
  return isSeen && !isDecoration(scene, i);
}

/** Whether a box, or something that it stands in, reaches out of what that stands in. */
const reachesOut = perNode((view, i): boolean => {
  const around = view.containingElement(i);
  if (around <= view.body) return false;
  return (
    Math.max(...Object.values(outOf(view.box(i), view.box(around)))) >= LEAST_PX || reachesOut(view, around)
  );
});

function runsOut(view: SnapshotView, words: Ink): boolean {
  const block = blockAround(view, words.node);
  return (
    Math.max(...Object.values(outOf(words.full, view.box(block)))) >= LEAST_PX || reachesOut(view, block)
  );
}

function meetingOf(scene: Scene, box: NodeIndex, rect: Rect, words: Ink): Meeting | null {
  const { view } = scene;
  const letters = intersect(lettersOf(view, words.line), words.shown!);
  const common = letters && intersect(letters, rect);
  if (!common || Math.min(common.width, common.height) < LEAST_PX) return null;
  if (common.height < LEAST_ACROSS * words.full.height || isSymbols(view, words)) return null;
  const parts = branches(scene, box, words.node);
  if (!parts || isDecoration(scene, words.node) || isMoved(scene, box, words.node)) return null;
  const [around, beside] = parts;
  const meet = { box, words, common };
  const full = view.box(box);
  const place = (holder: NodeIndex) => ({ holder, axis: axisOut(common, view.box(holder)) });
  if (around !== box && isOutside(view, common, around, full)) {
    const { holder, axis } = place(around);
    const culprit = axis === 'x' ? box : tooLowFor(view, full, box, around);
    return { ...meet, ran: 'box', holder, axis, culprit };
  }
  if (isOutside(view, common, beside, words.full)) {
    const { holder, axis } = place(beside);
    const block = blockAround(view, words.node);
    const culprit = axis === 'x' ? block : tooLowFor(view, words.full, words.node, beside);
    return { ...meet, ran: 'words', holder, axis, culprit };
  }
  const isWider = around === box && (isInColumn(view, box) || startsBefore(view, box, beside));
  return isWider ? { ...meet, ran: 'box', holder: view.parent(box), axis: 'x', culprit: box } : null;
}

/** Moved, or staying on the screen while the other does not. */
function isMoved(scene: Scene, a: NodeIndex, b: NodeIndex): boolean {
  const { view } = scene;
  if (stayingRoot(view, a) !== stayingRoot(view, b)) return true;
  return displacedRoot(scene, a, b) >= 0 || displacedRoot(scene, b, a) >= 0;
}

/** Whether a spot lies outside of the part that holds something. */
function isOutside(view: SnapshotView, spot: Rect, part: NodeIndex, held: Rect): boolean {
  const box = view.box(part);
  if (box.width < LEAST_HOLDER * held.width || box.height < LEAST_HOLDER * held.height) return false;
  const inside = intersect(spot, box);
  return !inside || area(inside) < (1 - LEAST_OUTSIDE) * area(spot);
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

const isFlow = perStyle((view, i) => /^(block|flow-root|list-item)$/.test(view.style(i, 'display')));

/** An item of a grid whose width is its own, and not its column's; what is put above another one on purpose says so. */
function isOwnSizedItem(view: SnapshotView, i: NodeIndex): boolean {
  return isGrid(view, view.parent(i)) && hasOwnWidth(view, i) && view.style(i, 'z-index') === 'auto';
}

const isGrid = perStyle((view, i) => /grid/.test(view.style(i, 'display')));

/** Whether an item of a grid begins before another one does, and ends within it. */
function startsBefore(view: SnapshotView, i: NodeIndex, next: NodeIndex): boolean {
  if (!isOwnSizedItem(view, i)) return false;
  const [a, b] = [view.box(i), view.box(next)];
  const isLeft = a.x + LEAST_PX < b.x && a.x + a.width < b.x + b.width;
  return isLeft || (a.x + a.width > b.x + b.width + LEAST_PX && a.x > b.x);
}
