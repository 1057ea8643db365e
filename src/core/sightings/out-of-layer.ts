import { contrastOf } from '../css/colours.js';
import { meets, outAlong, rightOf, type Rect } from '../geometry/rect.js';
import { isDecoration } from '../intent/decoration.js';
import { isSymbols } from '../intent/typography.js';
import { displacedRoot, displacementOf } from '../layout/displace.js';
import {
  colourUnder,
  groundColour,
  groundOf,
  middleOfRect,
  pageColour,
  pictured,
} from '../layout/grounds.js';
import { perSnapshot } from '../layout/memo.js';
import { sceneOf, type Ink, type Scene } from '../layout/scene.js';
import { stayingRoot } from '../layout/viewport-layer.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { byCulprit } from './by-culprit.js';
import { hiddenInk, type Doubt } from './doubt.js';
import { READ, UNSEEN } from './out-of-ground.js';
import type { RenderView, Sighting } from './sighting.js';
import { andMore, capital, nameOf, onScreen, shortName } from './words.js';

/** So much of the letters in a spot can't be made out. */
const LEAST_SHARE = 0.8;

/** Words beside a layer on which others like them are read. */
interface Lost {
  readonly ink: Ink;
  /** What of it is beside the layer, CSS px of the page. */
  readonly area: Rect;
  readonly layer: NodeIndex;
  readonly culprit: NodeIndex;
}

/**
 * Words that are read on a layer of their own (a picture, a coloured box behind them, a pseudo-element) and run past its end, onto the colour that
 * they have themselves. Boxes propose, pixels decide.
 */
export function outOfLayers(scene: Scene, render: RenderView): Sighting[] {
  const { view } = scene;
  const lost = lostOf(view).filter((one) => (hiddenInk(view, doubtOf(one), LEAST_SHARE) ?? 0) > 0);
  return byCulprit(view, lost).map(({ entries, fault }) => {
    const [{ ink, layer }] = entries as [Lost];
    const worst = entries.map((entry) => outBy(view, entry)).reduce((a, b) => (b.px > a.px ? b : a));
    const { more, isMany } = andMore(entries.length - 1);
    return {
      ...fault,
      key: `layer ${fault.key}`,
      affected: entries.map((entry) => entry.ink.node),
      rect: ink.shown!,
      by: worst,
      shows: { lost: entries.map(({ area }) => area) },
      severity: 'error',
      message: `${capital(nameOf(view, ink))}${more} ${isMany ? 'run' : 'runs'} past the end of ${shortName(view, layer)}, on which ${isMany ? 'they' : 'it'} could be read, and can't be seen, ${onScreen(render)}.`,
    };
  });
}

export function layerDoubts({ view }: RenderView): Doubt[] {
  return lostOf(view).map(doubtOf);
}

function doubtOf({ ink, area }: Lost): Doubt {
  return { cover: ink.node, under: ink.node, area, unread: true };
}

function outBy(view: SnapshotView, { area, layer }: Lost): { axis: 'x' | 'y'; px: number } {
  const [across, down] = (['x', 'y'] as const).map((axis) => outAlong(area, view.box(layer), axis));
  return down! > 0 ? { axis: 'y', px: down! } : { axis: 'x', px: Math.max(0, across!) };
}

const lostOf = perSnapshot((view): readonly Lost[] => {
  const scene = sceneOf(view);
  const alike = scene.inks.filter((ink) => hasColourOfItsGround(scene, ink));
  if (alike.length < 2) return [];
  const read: { readonly ink: Ink; readonly layer: NodeIndex }[] = [];
  const unseen: Ink[] = [];
  for (const ink of alike) {
    const under = colourUnder(scene, ink, ink.shown!);
    const contrast = under === null ? Infinity : contrastOf(view.style(ink.node, 'color'), under);
    if (contrast < UNSEEN) unseen.push(ink);
    const layer = contrast >= READ ? layerUnder(scene, ink) : -1;
    if (layer >= 0) read.push({ ink, layer });
  }
  const lost = (ink: Ink, area: Rect, layer: NodeIndex): Lost => ({
    ink,
    area,
    layer,
    culprit: culpritOf(scene, ink, layer),
  });
  return [
    ...unseen.flatMap((ink) => {
      const beside = read.find((one) => isOfSameLayer(scene, ink, one));
      return beside ? [lost(ink, ink.shown!, beside.layer)] : [];
    }),
    ...read.flatMap(({ ink, layer }) =>
      endsBeside(ink.shown!, view.box(layer))
        .filter((end) => isUnseenIn(scene, ink, end))
        .map((end) => lost(ink, end, layer)),
    ),
  ];
});

function isUnseenIn(scene: Scene, ink: Ink, area: Rect): boolean {
  const under = colourUnder(scene, ink, area);
  return under !== null && contrastOf(scene.view.style(ink.node, 'color'), under) < UNSEEN;
}

/** Less of a line is a letter's edge, CSS px. */
const LEAST_END = 6;

/** What of a line lies to the left and to the right of a box. */
function endsBeside(line: Rect, box: Rect): Rect[] {
  const left = { ...line, width: box.x - line.x };
  const right = { ...line, x: rightOf(box), width: rightOf(line) - rightOf(box) };
  return [left, right].filter(({ width }) => width >= LEAST_END);
}

/** Whether words have the colour of what they would lie on if nothing but what they stand in were drawn. */
function hasColourOfItsGround(scene: Scene, ink: Ink): boolean {
  const { view } = scene;
  if (ink.kind !== 'text' || !ink.shown || !scene.isOnPage(ink.shown, ink.node)) return false;
  const ground = groundOf(view, ink.node);
  const own = ground < 0 ? pageColour(view) : groundColour(view, ground);
  if (own === null || !(contrastOf(view.style(ink.node, 'color'), own) < UNSEEN)) return false;
  return stayingRoot(view, ink.node) < 0 && !isDecoration(scene, ink.node) && !isSymbols(view, ink);
}

/** Both stand in what holds the layer; in the page itself, they are words of one text. */
function isOfSameLayer(
  scene: Scene,
  ink: Ink,
  { ink: read, layer }: { readonly ink: Ink; readonly layer: NodeIndex },
): boolean {
  if (read.node === ink.node) return true;
  const { view } = scene;
  const holder = view.parent(layer);
  return holder > view.body && scene.contains(holder, ink.node);
}

/** The topmost thing drawn under the middle of an ink that does not hold it; −1 where that is nothing. */
function layerUnder(scene: Scene, ink: Ink): NodeIndex {
  const { view, order } = scene;
  const middle = middleOfRect(ink.shown!);
  const [top] = [
    ...scene.coversIn(middle).map(({ node }) => node),
    ...pictured(view).filter((i) => scene.painted[i] && meets(view.box(i), middle, 0)),
  ]
    .filter((i) => order.box[i]! < ink.rank && !scene.contains(i, ink.node))
    .sort((a, b) => order.box[b]! - order.box[a]!);
  return top ?? -1;
}

/** What was put where it is: the words, or else the layer; the words where neither was. */
function culpritOf(scene: Scene, ink: Ink, layer: NodeIndex): NodeIndex {
  const { view } = scene;
  const moved = displacedRoot(scene, ink.node, layer);
  if (moved >= 0) return moved;
  if (displacementOf(view, layer) === null) return ink.node;
  return view.isElement(layer) ? layer : view.parent(layer);
}
