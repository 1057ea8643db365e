import { sizeText } from '../geometry/format.js';
import { alphaOf } from '../css/colours.js';
import { area, intersect, type Rect } from '../geometry/rect.js';
import { RectIndex } from '../geometry/rect-index.js';
import { controlAround } from '../layout/ancestors.js';
import { cut } from '../layout/clips.js';
import { isDecoration } from '../intent/decoration.js';
import { isSymbols } from '../intent/typography.js';
import { displacedRoot } from '../layout/branches.js';
import { isInline } from '../layout/displays.js';
import { isOpaque, SIDES } from '../layout/paint.js';
import { perStyle } from '../layout/memo.js';
import { isUpright } from '../layout/rotation.js';
import type { Ink, Scene } from '../layout/scene.js';
import { isFreedInScroller } from '../layout/scrollers.js';
import { isVertical } from '../layout/text-ink.js';
import { isFixed, stickyRoot } from '../layout/viewport-layer.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { byCulprit, type Culprits } from './by-culprit.js';
import type { RenderView, Sighting } from './sighting.js';
import { andMore, capital, nameOf, onScreen } from './words.js';

/** What is thicker is a bar or a box, CSS px. */
const MOST_THICK = 8;
/** What crosses letters nearer to their head or feet than this, share of their height, underlines them. */
const MARGIN = 0.2;
/** A line along words crosses so much of them, CSS px; one across them has letters so far on both sides. */
const LEAST_ALONG = 12;
const LEAST_ASIDE = 4;
/** A line through its own words alone, to so far beside them, strikes them out, em. */
const STRIKE_EM = 1;

interface Stroke {
  readonly node: NodeIndex;
  readonly rect: Rect;
  readonly rank: number;
}

interface Crossing {
  readonly culprit: NodeIndex;
  readonly stroke: Stroke;
  readonly ink: Ink;
  readonly common: Rect;
}

/**
 * Lines through words: thin boxes, and the borders of see-through boxes that the words don't stand in, since one of the two was moved there. Lines that
 * words stand on with a ground of their own don't show.
 * @param told what is told of already
 */
export function strokesOnWords(
  scene: Scene,
  render: RenderView,
  told: readonly { readonly cover: { readonly node: NodeIndex }; readonly ink: Ink }[],
): Sighting[] {
  const { view } = scene;
  const strokes = strokesOf(scene);
  if (strokes.length === 0) return [];
  const index = new RectIndex(strokes.map(({ rect }) => rect));
  const found: Crossing[] = [];
  for (const ink of scene.inks) {
    if (ink.kind !== 'text' || !ink.shown || isVertical(view, ink.node)) continue;
    for (const at of index.search(ink.shown)) {
      const stroke = strokes[at]!;
      const common = crossing(stroke.rect, ink.shown);
      if (!common || isDecoration(scene, ink.node) || isSymbols(view, ink)) continue;
      if (told.some(({ cover, ink: under }) => cover.node === stroke.node && under.node === ink.node))
        continue;
      const culprit = lieOnIt(scene, stroke, ink) ? -1 : movedOf(scene, stroke, ink);
      if (culprit >= 0 && isSeen(scene, stroke, ink, common) && !strikes(view, stroke, ink, common))
        found.push({ culprit, stroke, ink, common });
    }
  }
  return byCulprit(view, found).map((group) => sighting(view, render, group));
}

function strokesOf({ view, painted, opacity, order, clips }: Scene): Stroke[] {
  const found: Stroke[] = [];
  for (let i = 1; i < view.count; i++) {
    if (!painted[i] || opacity[i]! < 0.5 || i === view.body || isInline(view, i) || !isUpright(view, i))
      continue;
    const rank = order.box[i]!;
    const add = (rect: Rect) => {
      const seen = cut(rect, clips.shownBox(i));
      if (seen) found.push({ node: i, rect: seen, rank });
    };
    const box = view.box(i);
    // A box with a ground covers words, and a control that lies on them is control-overlap's.
    const isThin = Math.min(box.width, box.height) <= MOST_THICK && area(box) >= 16;
    const lines = isOpaque(view, i) ? (isThin ? [box] : []) : bordersOf(view, i, box);
    if (lines.length > 0 && controlAround(view, i) < 0) for (const line of lines) add(line);
  }
  return found;
}

const drawnSides = perStyle((view, i) =>
  SIDES.map((side) => alphaOf(view.style(i, `border-${side}-color`)) >= 0.5),
);

function bordersOf(view: SnapshotView, i: NodeIndex, { x, y, width, height }: Rect): Rect[] {
  const { border } = view.snapshot.nodes;
  const [top, right, bottom, left] = SIDES.map((_, side) => border[4 * i + side]!) as [
    number,
    number,
    number,
    number,
  ];
  if (top + right + bottom + left === 0) return [];
  const isDrawn = drawnSides(view, i);
  return [
    { x, y, width, height: top },
    { x: x + width - right, y, width: right, height },
    { x, y: y + height - bottom, width, height: bottom },
    { x, y, width: left, height },
  ].filter(
    (rect, side) =>
      isDrawn[side] && rect.width > 0 && rect.height > 0 && Math.min(rect.width, rect.height) <= MOST_THICK,
  );
}

/** Whether words that a line is drawn round lie on the same words: of these, text-overlap tells. */
function lieOnIt(scene: Scene, stroke: Stroke, { shown }: Ink): boolean {
  return scene.inksIn(shown!).some(({ kind, node, shown: other }) => {
    const common = kind === 'text' && scene.contains(stroke.node, node) ? intersect(other!, shown!) : null;
    return common !== null && common.width >= LEAST_ASIDE && common.height >= 0.5 * shown!.height;
  });
}

/** Where a line goes through letters, along them or across them; null where it does not. */
function crossing(stroke: Rect, letters: Rect): Rect | null {
  const common = intersect(stroke, letters);
  if (!common) return null;
  if (stroke.width > stroke.height) {
    const middle = stroke.y + stroke.height / 2 - letters.y;
    const isThrough = middle > MARGIN * letters.height && middle < (1 - MARGIN) * letters.height;
    return isThrough && common.width >= LEAST_ALONG ? common : null;
  }
  const isBetween =
    common.x - letters.x >= LEAST_ASIDE && letters.x + letters.width - common.x - common.width >= LEAST_ASIDE;
  return isBetween && common.height >= 0.5 * letters.height ? common : null;
}

/** Which of the two was moved to where they meet; −1 where neither was, or they come apart by scrolling. */
function movedOf(scene: Scene, stroke: Stroke, ink: Ink): NodeIndex {
  const { view } = scene;
  if (scene.contains(stroke.node, ink.node)) return -1;
  if (isFixed(view, stroke.node) !== isFixed(view, ink.node)) return -1;
  if (stickyRoot(view, stroke.node) !== stickyRoot(view, ink.node)) return -1;
  if (isFreedInScroller(view, ink.node, ink.shown!, stroke.node, stroke.rect)) return -1;
  const strokeRoot = displacedRoot(scene, stroke.node, ink.node);
  return strokeRoot >= 0 ? strokeRoot : displacedRoot(scene, ink.node, stroke.node);
}

/** A line under words is hidden by what they stand on. */
function isSeen(scene: Scene, stroke: Stroke, ink: Ink, common: Rect): boolean {
  const lower = Math.min(stroke.rank, ink.rank);
  const upper = Math.max(stroke.rank, ink.rank);
  return !scene.coversIn(common).some(({ node, rank, rect }) => {
    const isBetween = rank > lower && rank <= upper && node !== stroke.node;
    const isOver = rank > upper;
    const both = intersect(rect, common);
    return (isBetween || isOver) && both !== null && area(both) >= 0.9 * area(common);
  });
}

/** A line of the words' own, as long as they are. */
function strikes(view: SnapshotView, stroke: Stroke, ink: Ink, common: Rect): boolean {
  if (stroke.rect.width <= stroke.rect.height) return false;
  const isOwn = view.parent(stroke.node) === ink.node || view.parent(stroke.node) === view.parent(ink.node);
  const beside = STRIKE_EM * ink.full.height;
  return isOwn && stroke.rect.width <= ink.full.width + beside && common.width >= 0.5 * stroke.rect.width;
}

function sighting(view: SnapshotView, render: RenderView, { entries, fault }: Culprits<Crossing>): Sighting {
  const { ink, common } = entries.reduce((a, b) => (area(b.common) > area(a.common) ? b : a));
  const { more, isMany } = andMore(new Set(entries.map((entry) => entry.ink)).size - 1);
  return {
    ...fault,
    key: `stroke ${fault.key}`,
    affected: entries.map((entry) => entry.ink.node),
    partners: entries.map((entry) => entry.stroke.node),
    rect: view.box(fault.node),
    by: common.width > common.height ? { axis: 'x', px: common.width } : { axis: 'y', px: common.height },
    shows: { lost: entries.map((entry) => entry.common) },
    severity: 'warning',
    message: `${capital(nameOf(view, ink))}${more} ${isMany ? 'are' : 'is'} crossed by a line over ${sizeText(common)}, ${onScreen(render)}.`,
  };
}
