import { px } from '../geometry/format.js';
import { bottomOf, intersect, outAlong, outOf, type Rect } from '../geometry/rect.js';
import { displacementOf, isGrownInPlace } from '../layout/displace.js';
import { isInline } from '../layout/displays.js';
import { hasBorderAllRound, hasBorderAt, isDrawn, SIDES } from '../layout/paint.js';
import type { Cover, Scene } from '../layout/scene.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { byCulprit } from './by-culprit.js';
import type { RenderView, Sighting } from './sighting.js';
import { onScreen, shortName, sideWords } from './words.js';

/** Less may be a border, a shadow, a rounding, CSS px. */
const LEAST_PX = 6;
/** So little may be meant. */
const MILD_PX = 10;

interface Out {
  readonly culprit: NodeIndex;
  readonly box: NodeIndex;
  readonly axis: 'x' | 'y';
  readonly px: number;
  readonly rect: Rect;
}

/**
 * A box with a ground of its own that sticks out of the drawn box that holds it, though no letter leaves that: a card that is wider
 * than its panel, a bar longer than its track.
 * @param told boxes that content was found to run out of already
 */
export function boxesOutOfBoxes(scene: Scene, render: RenderView, told: ReadonlySet<NodeIndex>): Sighting[] {
  const { view } = scene;
  const found = seenBoxes(scene).flatMap(({ node, rect }): Out[] => {
    const { box, isInRow } = drawnAround(scene, node, rect);
    if (box < 0 || told.has(box) || (isPutThere(scene, node) && !isFilling(scene, node, rect, box)))
      return [];
    const around = view.box(box);
    if (around.width < 4 || around.height < 4) return [];
    // What is beside its panel altogether was put there, unless it goes on with a row that begins in it.
    if (!intersect(rect, around) && !isInRowFrom(view, node, around)) return [];
    return (['x', 'y'] as const).flatMap((axis) => {
      const out = outAlong(rect, around, axis);
      const isRows = axis === 'x' && isInRow;
      return out >= LEAST_PX && !isRows ? [{ culprit: tableOf(view, node), box, axis, px: out, rect }] : [];
    });
  });
  return byCulprit(view, found).map(({ entries, fault }) => {
    const worst = entries.reduce((a, b) => (b.px > a.px ? b : a));
    const side = sideWords(worst.rect, view.box(worst.box), worst.axis);
    return {
      ...fault,
      key: `box ${fault.key}`,
      rect: worst.rect,
      by: { axis: worst.axis, px: worst.px },
      mild: entries.every((entry) => entry.px <= MILD_PX),
      message: `Its own box sticks ${px(worst.px)} out of ${side} of the box ${shortName(view, worst.box)} that is drawn round it, ${onScreen(render)}.`,
    };
  });
}

/** Boxes whose edges are seen: those with a ground of their own, those with a border all round, and lines between parts of a text. */
function seenBoxes(scene: Scene): Pick<Cover, 'node' | 'rect'>[] {
  const { view, painted, covers } = scene;
  const grounds = covers.filter(({ node }) => node > view.body && !isInline(view, node));
  const known = new Set(grounds.map(({ node }) => node));
  const rims: Pick<Cover, 'node' | 'rect'>[] = [];
  for (let i = view.body + 1; i < view.count; i++) {
    if (!painted[i] || known.has(i) || isInline(view, i)) continue;
    if (!hasBorderAllRound(view, i) && !isRuleLine(view, i)) continue;
    const rect = scene.shownOf(i, view.box(i));
    if (rect) rims.push({ node: i, rect });
  }
  return [...grounds, ...rims];
}

/** A line between parts of a text: it may be drawn by one border alone. */
function isRuleLine(view: SnapshotView, i: NodeIndex): boolean {
  return view.tag(i) === 'hr' && SIDES.some((side) => hasBorderAt(view, i, side));
}

/** Of a cell or a row, its table, which gives them their places; else the element itself. */
function tableOf(view: SnapshotView, i: NodeIndex): NodeIndex {
  if (!/^table-(cell|row)/.test(view.style(i, 'display'))) return i;
  for (let at = view.containingElement(i); at > view.body; at = view.containingElement(at))
    if (/table$/.test(view.style(at, 'display'))) return at;
  return i;
}

/** Moved on purpose, which what is drawn larger with words in it is not: the words say that the whole of it is to be read. */
function isPutThere(scene: Scene, i: NodeIndex): boolean {
  const { view } = scene;
  if (displacementOf(view, i) === null) return false;
  return !(isGrownInPlace(view, i) && holdsWords(scene, i, view.box(i)));
}

/** Beside an element, in the flow with it, another one like it stands in a box. */
function isInRowFrom(view: SnapshotView, i: NodeIndex, around: Rect): boolean {
  const own = view.box(i);
  return view.childrenOf(view.parent(i)).some((other) => {
    const box = view.box(other);
    const isBeside = other !== i && box.y < bottomOf(own) && bottomOf(box) > own.y;
    return (
      isBeside &&
      view.tag(other) === view.tag(i) &&
      displacementOf(view, other) === null &&
      outAlong(box, around, 'x') <= 0
    );
  });
}

/** Whether words that stand in an element are seen within a rectangle. */
export function holdsWords(scene: Scene, i: NodeIndex, within: Rect): boolean {
  return scene.inksIn(within).some(({ kind, node }) => kind === 'text' && scene.contains(i, node));
}

/** Less than this apart, two edges are one. */
const FLUSH_PX = 2;

/**
 * Put into a bordered box so that it lies along three of its sides, and past the fourth: what fills a scale, more than the whole of
 * it. With words it would be a list that opens over its field.
 */
function isFilling(scene: Scene, i: NodeIndex, rect: Rect, box: NodeIndex): boolean {
  const { view } = scene;
  if (view.style(i, 'position') !== 'absolute' || Number(view.style(i, 'z-index')) < 0) return false;
  const inner = view.paddingBox(box);
  const out = outOf(rect, inner);
  const rim = outOf(view.box(box), inner);
  const past = SIDES.filter((side) => out[side] > FLUSH_PX);
  const isAlongTheOthers = SIDES.every((side) => out[side] >= -FLUSH_PX);
  return past.length === 1 && isAlongTheOthers && rim[past[0]!] > 0 && !holdsWords(scene, i, rect);
}

interface Around {
  readonly box: NodeIndex;
  /** Whether it stands in a row that makes up for its gutters, which sticks out at the sides for it. */
  readonly isInRow: boolean;
}

/** The nearest drawn box that holds an element in the page's flow; −1 where there is none, or something on the way was moved. */
function drawnAround({ view, painted }: Scene, i: NodeIndex, rect: Rect): Around {
  let isInRow = false;
  for (let at = view.containingElement(i); at > view.body; at = view.containingElement(at)) {
    if (painted[at] && !isInline(view, at) && isDrawn(view, at)) return { box: at, isInRow };
    const displacement = displacementOf(view, at);
    if (displacement === null) continue;
    const [top, , bottom] = view.margins(at);
    if (displacement !== 'negative-margin' || Math.min(top, bottom) < 0) break;
    isInRow ||= outAlong(rect, view.box(at), 'x') < LEAST_PX;
  }
  return { box: -1, isInRow };
}
