import { READ, UNSEEN } from '../css/colours.js';
import { meets, outAlong, rightOf, type Rect } from '../geometry/rect.js';
import { middleOfRect, pictured } from '../layout/grounds.js';
import { perSnapshot } from '../layout/memo.js';
import { sceneOf, type Ink, type Scene } from '../layout/scene.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import type { Doubt } from './doubt.js';
import type { RenderView, Sighting } from './sighting.js';
import { contrastUnder } from '../layout/contrast.js';
import { contrastOnGround, isMissed, lostIn, tellUnseen, unreadDoubt, type Lost } from './unseen-words.js';
import { onScreen, shortName } from './words.js';

/**
 * Words that are read on a layer of their own (a picture, a coloured box behind them, a pseudo-element) and run past its end, onto the colour that
 * they have themselves.
 */
export function outOfLayers({ view }: Scene, render: RenderView): Sighting[] {
  return tellUnseen(
    view,
    lostOf(view),
    'layer',
    (one) => outBy(view, one),
    ({ layer }, isMany) =>
      `${isMany ? 'run' : 'runs'} past the end of ${shortName(view, layer)}, on which ${isMany ? 'they' : 'it'} could be read, and can't be seen, ${onScreen(render)}`,
  );
}

export function layerDoubts({ view }: RenderView): Doubt[] {
  return lostOf(view).map(unreadDoubt);
}

function outBy(view: SnapshotView, { area, layer }: Lost): { axis: 'x' | 'y'; px: number } {
  const [across, down] = (['x', 'y'] as const).map((axis) => outAlong(area, view.box(layer), axis));
  return down! > 0 ? { axis: 'y', px: down! } : { axis: 'x', px: Math.max(0, across!) };
}

interface Read {
  readonly ink: Ink;
  readonly layer: NodeIndex;
}

const lostOf = perSnapshot((view): readonly Lost[] => {
  const scene = sceneOf(view);
  // They have the colour of what they would lie on if nothing but what they stand in were drawn.
  const alike = scene.inks.filter(
    (ink) => (contrastOnGround(scene, ink) ?? Infinity) < UNSEEN && isMissed(scene, ink),
  );
  const read: Read[] = [];
  const unseen: Ink[] = [];
  for (const ink of alike) {
    const contrast = contrastUnder(scene, ink, ink.shown!);
    if (contrast < UNSEEN) unseen.push(ink);
    const layer = contrast >= READ ? layerUnder(scene, ink) : -1;
    if (layer >= 0) read.push({ ink, layer });
  }
  return [
    ...unseen.flatMap((ink) => {
      const beside = read.find((one) => isOfSameLayer(scene, ink, one));
      return beside ? [lostIn(scene, ink, ink.shown!, beside.layer)] : [];
    }),
    ...read.flatMap(({ ink, layer }) =>
      endsBeside(ink.shown!, view.box(layer))
        .filter((end) => contrastUnder(scene, ink, end) < UNSEEN)
        .map((end) => lostIn(scene, ink, end, layer)),
    ),
  ];
});

/** Less of a line is a letter's edge, CSS px. */
const LEAST_END = 6;

/** What of a line lies to the left and to the right of a box. */
function endsBeside(line: Rect, box: Rect): Rect[] {
  const left = { ...line, width: box.x - line.x };
  const right = { ...line, x: rightOf(box), width: rightOf(line) - rightOf(box) };
  return [left, right].filter(({ width }) => width >= LEAST_END);
}

/** Both stand in what holds the layer; in the page itself, they are words of one text. */
function isOfSameLayer(scene: Scene, ink: Ink, { ink: read, layer }: Read): boolean {
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
