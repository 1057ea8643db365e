import { driverTowards, isItemOfWideRow } from '../../sightings/drivers.js';
import { px } from '../../geometry/format.js';
import {
  area,
  intersect,
  outAlong,
  outOf,
  rightOf,
  sideOut,
  sizeAlong,
  union,
  type Rect,
} from '../../geometry/rect.js';
import { isBullet, isListMarker } from '../../intent/bullets.js';
import { isOrnament } from '../../intent/decoration.js';
import { escapeRoot } from '../../sightings/culprit.js';
import { clipsAxis } from '../../layout/clip.js';
import { displacementOf } from '../../layout/displace.js';
import { isLabelPart } from '../../layout/labels.js';
import { reachAt } from '../../layout/outlines.js';
import { hasBorderAt, isDrawn, isOpaque, SIDES } from '../../layout/paint.js';
import { sceneOf, type Ink, type Scene } from '../../layout/scene.js';
import { acrossLines, emOf } from '../../layout/text-ink.js';
import { blockAround } from '../../layout/ancestors.js';
import { textRowsOf } from '../../layout/text-rows.js';
import { fixedRoot, screenOnPage } from '../../layout/viewport-layer.js';
import type { NodeIndex, SnapshotView } from '../../layout/view.js';
import { boxesOutOfBoxes } from '../../sightings/box-out-of-box.js';
import { boxesOverNeighbours } from '../../sightings/box-over-neighbour.js';
import { byCulprit, rowOrOwn, type Culprits } from '../../sightings/by-culprit.js';
import { cutBoxes } from '../../sightings/cut-boxes.js';
import { isUnseen, outOfGround } from '../../sightings/out-of-ground.js';
import { onOwnColour, ownColourDoubts } from '../../sightings/on-own-colour.js';
import { layerDoubts, outOfLayers } from '../../sightings/out-of-layer.js';
import { pastOwnPictures, pictureDoubts } from '../../sightings/past-own-picture.js';
import { chainTo, tooLowFor } from '../../sightings/too-low.js';
import { boxesOnParts, wordsOnParts } from '../../sightings/words-on-parts.js';
import { onScreen, quoted, shortName, sideWords } from '../../sightings/words.js';
import type { Rule } from '../rule.js';
import type { RenderView, Sighting } from '../../sightings/sighting.js';
import { isInline } from '../../layout/displays.js';

/** Less than this out of a box is not seen: rounding, glyph overhang, the air round a letter. */
const LEAST_PX = 2;
/** So little may be meant, CSS px. */
const MILD_PX = 5;
/** Of letters on the edge of a box that is too low. */
const MILD_ACROSS_PX = 2.5;
/** Of a rounded corner, whose edge runs past the letters at a slant. */
const LEAST_ROUND = 4;
/** Letters reach this far out of a box that is a little too low before it looks wrong, em. */
const LEAST_EM = 0.15;
/** Words that were moved have the edge of a box run through them when so much of them lies on either side, CSS px. */
const LEAST_EITHER_SIDE = 3;

interface Escape {
  readonly box: NodeIndex;
  readonly culprit: NodeIndex;
  readonly ink: Ink;
  readonly axis: 'x' | 'y';
  readonly px: number;
}

/**
 * Content runs out of the box that is drawn round it. How it measures, what it leaves alone and how to repair:
 * docs/rules/box-overflow.md.
 */
export const boxOverflow: Rule = {
  meta: {
    name: 'box-overflow',
    family: 'overflow',
    severity: 'warning',
    summary: 'content runs out of the box that is drawn round it',
  },
  check(render) {
    const scene = sceneOf(render.view);
    const escapes: Escape[] = [];
    for (const ink of scene.inks) {
      const escape = escapeOf(scene, ink);
      if (escape) escapes.push(escape);
    }
    const told = new Set(escapes.map(({ box }) => box));
    const atFault = new Set(escapes.map(({ culprit }) => culprit));
    return [
      ...byCulprit(scene.view, escapes, rowOrOwn).map((group) => sighting(scene, render, group)),
      ...boxesOutOfBoxes(scene, render, told),
      ...boxesOverNeighbours(scene, render, atFault),
      ...wordsOnParts(scene, render, atFault),
      ...boxesOnParts(scene, render, new Set([...atFault, ...told])),
      ...cutBoxes(scene, render),
      ...outOfGround(scene, render, new Set(escapes.map(({ ink }) => ink))),
      ...outOfLayers(scene, render),
      ...onOwnColour(scene, render),
      ...pastOwnPictures(scene, render),
    ];
  },
  doubts: (render) => [...layerDoubts(render), ...ownColourDoubts(render), ...pictureDoubts(render)],
};

const NOT_MOVED = { x: false, y: false };

/** The innermost drawn box that an ink runs out of. */
function escapeOf(scene: Scene, ink: Ink): Escape | null {
  const { view } = scene;
  // What is before the page's beginning is out of reach, and not seen to be out of a box.
  const shown = ink.shown && scene.onPage(ink.shown, ink.node);
  if (!shown || isOrnament(scene, ink.node)) return null;
  // A number or bullet stands outside of its item, and within the list.
  const ownItem = isListMarker(view, ink.node) ? view.parent(ink.node) : -1;
  const moved = { x: false, y: false };
  let isHeld = false;
  let hasGround = false;
  // What took the ink out of its place, the outermost of several: at fault for what that does up or down.
  let [placed, pulledBy] = [-1, -1];
  for (let at = ink.node; at > 0 && at !== view.body; at = view.containingElement(at)) {
    // Text may run out of its own element; a box runs out of one around it.
    const isAround = at !== ink.node || ink.kind === 'text';
    if (
      isAround &&
      at !== ownItem &&
      scene.painted[at] &&
      !isInline(view, at) &&
      (isDrawn(view, at) || (!hasGround && isCrossedByBorder(view, shown, at)))
    ) {
      const found = escapeFrom(scene, ink, shown, at, moved);
      if (found && placed < 0) return found;
      if (found && isCrossed(view, found)) return found.axis === 'y' ? { ...found, culprit: placed } : found;
      // However far a margin pulls words on purpose, no purpose has an edge run through them, or leaves the box of all of them empty.
      const isPulled = ink.kind === 'text' && (moved.x || moved.y) && !isHeld;
      const pulled = isPulled ? escapeFrom(scene, ink, shown, at, NOT_MOVED) : null;
      if (pulled?.axis === 'x' && hasEdgeThrough(view, pulled)) return pulled;
      if (pulled?.axis === 'y' && (isCrossed(view, pulled) || isLeftEmpty(scene, pulled, pulledBy)))
        return { ...pulled, culprit: pulledBy };
    }
    // What has a ground of its own, be it the colour of the page, covers the edge under its words.
    hasGround ||= isOpaque(view, at);
    isHeld ||= isAround && !isInline(view, at) && (isDrawn(view, at) || isOpaque(view, at));
    const displacement = displacementOf(view, at);
    if (displacement === null) continue;
    if (displacement !== 'negative-margin') {
      // What was put somewhere on purpose may hang out of a box or lie beside it; no purpose has an edge run through bare words.
      if (ink.kind !== 'text' || isHeld) return null;
      placed = at;
      continue;
    }
    // A row that makes up for the gutters of its columns is moved sideways only.
    const [top, right, bottom, left] = view.margins(at);
    // Words that are pulled out at one side by themselves make up for nothing.
    const isOwn = ink.kind === 'text' && at === ink.node && Math.max(left, right) >= 0;
    // What sticks out of the row itself has not been moved out by it.
    const isInRow = outAlong(shown, view.box(at), 'x') <= leastOut(view, ink, 'x');
    moved.x ||= !isOwn && isInRow && Math.min(left, right) < 0;
    if (Math.min(top, bottom) < 0) [moved.y, pulledBy] = [true, at];
  }
  return null;
}

/** Whether a line at one of a box's sides runs through an ink, a good part of it on either side. */
function isCrossedByBorder(view: SnapshotView, shown: Rect, box: NodeIndex): boolean {
  if (!SIDES.some((side) => hasBorderAt(view, box, side))) return false;
  const around = view.box(box);
  const within = intersect(shown, around);
  if (!within) return false;
  const out = outOf(shown, around);
  return SIDES.some((side) => {
    const inside = /top|bottom/.test(side) ? within.height : within.width;
    return Math.min(out[side], inside) >= LEAST_EITHER_SIDE && hasBorderAt(view, box, side);
  });
}

/** Whether an edge of a box runs through an ink, a good part of it on either side. */
function hasEdgeThrough(view: SnapshotView, { ink, axis, px: out, box }: Escape): boolean {
  const within = intersect(ink.shown!, view.box(box));
  return within !== null && Math.min(out, sizeAlong(within, axis)) >= LEAST_EITHER_SIDE;
}

/** The same, or between the lines of its text. */
function isCrossed(view: SnapshotView, escape: Escape): boolean {
  if (hasEdgeThrough(view, escape)) return true;
  const { ink, box } = escape;
  const around = view.box(box);
  const block = ink.kind === 'text' ? blockAround(view, ink.node) : -1;
  const rows = textRowsOf(view).find((text) => text.block === block)?.rows ?? [];
  const lines = rows.flatMap((row) => row.lines);
  return lines.some((line) => {
    const whole = view.lineBox(line);
    const inside = intersect(whole, around);
    return inside !== null && area(inside) >= 0.5 * area(whole);
  });
}

/**
 * Whether nothing of what stands in a box is in it any more, by a margin that took its height away, or that pulled the words out of a box
 * which has room for them. (A word over a line that is drawn as a box has its place there.)
 */
function isLeftEmpty(scene: Scene, { ink, box }: Escape, pulledBy: NodeIndex): boolean {
  const { view } = scene;
  const [, , bottom] = view.margins(pulledBy);
  const around = view.box(box);
  if (bottom >= 0 && around.height < ink.full.height) return false;
  return !scene.inksIn(around).some(({ node }) => node !== box && scene.contains(box, node));
}

/** @param moved along which axes the ink was put where it is on purpose */
function escapeFrom(
  scene: Scene,
  ink: Ink,
  shown: Rect,
  box: NodeIndex,
  moved: { readonly x: boolean; readonly y: boolean },
): Escape | null {
  const { view } = scene;
  const around = view.box(box);
  if (around.width < 4 || around.height < 4) return null;
  const outX = moved.x ? 0 : outAlong(shown, around, 'x');
  if (outX > leastOut(view, ink, 'x') && !isScreenEdge(view, box, shown, 'x')) {
    return { box, ink, axis: 'x', px: outX, culprit: sidewaysCulprit(scene, ink, box) };
  }
  const outY = moved.y ? 0 : outAlong(shown, around, 'y');
  if (outY > leastOut(view, ink, 'y') && !isScreenEdge(view, box, shown, 'y'))
    return { box, ink, axis: 'y', px: outY, culprit: tooLowFor(view, ink.full, ink.node, box) };
  const outRound = ink.kind === 'text' && !moved.x && !moved.y ? outOfCorner(view, shown, box) : 0;
  // What the corner cuts off does not run out of it.
  if (outRound > LEAST_ROUND && !(clipsAxis(view, box, 'x') && clipsAxis(view, box, 'y')))
    return { box, ink, axis: 'x', px: outRound, culprit: sidewaysCulprit(scene, ink, box) };
  return null;
}

/** Whether what reaches out of a box that is fixed to the screen reaches out of the screen there: it can't be reached, and no edge is seen. */
function isScreenEdge(view: SnapshotView, box: NodeIndex, shown: Rect, axis: 'x' | 'y'): boolean {
  if (fixedRoot(view, box) < 0) return false;
  const around = view.box(box);
  return outOf(around, screenOnPage(view))[sideOut(shown, around, axis)] >= -1;
}

/** How far words in the height of a rounded corner reach out of it, a quarter of their height from its end, CSS px. */
function outOfCorner(view: SnapshotView, shown: Rect, box: NodeIndex): number {
  if (view.cornersOf(box) === '') return 0;
  const outs = [1 / 4, 3 / 4].map((share) => {
    const { left, right } = reachAt(view, box, shown.y + share * shown.height);
    return Math.max(left - shown.x, rightOf(shown) - right);
  });
  return Math.max(...outs);
}

function leastOut(view: SnapshotView, { kind, node, line }: Ink, axis: 'x' | 'y'): number {
  const isAcross = kind === 'text' && axis === acrossLines(view, node);
  return isAcross ? Math.max(LEAST_PX, LEAST_EM * emOf(view, line)) : LEAST_PX;
}

/** The outermost element below the box that reaches out of it, or what makes that one as wide as it is. */
function sidewaysCulprit(scene: Scene, ink: Ink, box: NodeIndex): NodeIndex {
  const { view } = scene;
  const chain = chainTo(view, ink.node, box);
  const past = (rect: Rect) => outAlong(rect, view.box(box), 'x');
  const out = escapeRoot(chain, (at) => past(view.box(at)), past(ink.full));
  if (out === undefined) return ink.node === box ? box : (chain[0] ?? box);
  if (isLabelPart(scene, box, out)) return box;
  return isItemOfWideRow(view, out) ? out : driverTowards(view, out, ink.node);
}

/** What is too wide in the middle of a box reaches out of it by so much at both sides. */
function isMild(view: SnapshotView, { ink, axis, box, px: out }: Escape): boolean {
  if (ink.kind === 'text' && axis === acrossLines(view, ink.node)) return out <= MILD_ACROSS_PX;
  const { left, right } = outOf(ink.shown!, view.box(box));
  return (axis === 'x' ? Math.max(out, left + right) : out) <= MILD_PX;
}

function sighting(scene: Scene, render: RenderView, { entries, fault }: Culprits<Escape>): Sighting {
  const { view } = scene;
  const worst = entries.reduce((a, b) => (b.px > a.px ? b : a));
  const own = entries.filter(({ culprit }) => culprit === worst.culprit);
  const side = sideWords(worst.ink.shown!, view.box(worst.box), worst.axis);
  const what = worst.ink.kind === 'text' ? quoted(view, worst.ink) : `A ${worst.ink.kind}`;
  const around = worst.culprit === worst.box ? 'the box' : `the box ${shortName(view, worst.box)}`;
  return {
    ...fault,
    affected: entries.map(({ ink }) => ink.node),
    homes: [...new Set(entries.map(({ box }) => box))].map((box) => view.box(box)),
    rect: own.map(({ ink }) => ink.shown!).reduce(union, view.box(worst.culprit)),
    by: { axis: worst.axis, px: worst.px },
    mild: entries.every((escape) => isMild(view, escape)),
    ...(entries.some(({ ink }) => isUnseen(scene, ink) && !isBullet(view, ink.node)) && {
      severity: 'error' as const,
    }),
    message: `${what} runs ${px(worst.px)} out of ${side} of ${around} that is drawn round it, ${onScreen(render)}.`,
  };
}
