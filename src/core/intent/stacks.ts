import { area, grown, intersect, meets } from '../geometry/rect.js';
import { signature } from '../identity/signature.js';
import { hasControl } from '../layout/controls-within.js';
import { branches, commonAncestor } from '../layout/branches.js';
import { isOutOfFlow } from '../layout/displace.js';
import { isMoved } from '../layout/transforms.js';
import type { Ink, Scene } from '../layout/scene.js';
import { FLAG_FIELD, FLAG_PICTURE } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** Slides, card faces and tab panels that lie on one another in the same place: one at a time is meant to be seen. */
export function areAlternatives(scene: Scene, a: NodeIndex, b: NodeIndex): boolean {
  const pair = branches(scene, a, b);
  if (!pair) return false;
  if (sideOf(scene.view, pair[0]) * sideOf(scene.view, pair[1]) < 0) return false;
  const [boxA, boxB] = [scene.view.box(pair[0]), scene.view.box(pair[1])];
  const common = intersect(boxA, boxB);
  // Turned slides of a pile meet in the middle.
  const isPile = pair.some((at) => isMoved(scene.view, at)) && sameLook(scene.view, pair);
  const least = (isPile ? 0.6 : 0.9) * Math.max(area(boxA), area(boxB));
  if (common === null || area(common) < least || area(common) <= 400) return false;
  if (isPile) return true;
  const isPlaced = pair.some((at) => isOutOfFlow(scene.view, at));
  return (isPlaced || isLedTo(scene, pair)) && !isOneOfRows(scene, pair);
}

/** Whether one of two stands in the flow beside others like it, so that what lies on it is in the place of one row, and of no part of its own. */
function isOneOfRows({ view, painted }: Scene, pair: readonly [NodeIndex, NodeIndex]): boolean {
  const inFlow = pair.filter((at) => !isOutOfFlow(view, at));
  return inFlow.some((at) =>
    view
      .childrenOf(view.parent(at))
      .some(
        (other) =>
          !pair.includes(other) &&
          painted[other] === 1 &&
          !isOutOfFlow(view, other) &&
          signature(view, other) === signature(view, at) &&
          !meets(view.box(other), view.box(at), 1),
      ),
  );
}

/** Whether something to press stands beside parts that lie on one another in the flow: else nothing brings the lower one out. */
function isLedTo(scene: Scene, pair: readonly [NodeIndex, NodeIndex]): boolean {
  return hasControl(scene, scene.view.parent(scene.view.parent(pair[0])), pair);
}

/** From which side an element is placed that is out of the flow: −1 from the left, 1 from the right; 0 where that is not said. */
function sideOf(view: SnapshotView, i: NodeIndex): number {
  if (!isOutOfFlow(view, i)) return 0;
  const [left, right] = [view.style(i, 'left') !== 'auto', view.style(i, 'right') !== 'auto'];
  return left === right ? 0 : left ? -1 : 1;
}

function sameLook(view: SnapshotView, [a, b]: readonly [NodeIndex, NodeIndex]): boolean {
  return view.tag(a) === view.tag(b) && view.classes(a)[0] === view.classes(b)[0];
}

/** Of a name, so many letters stand in for a face. */
const MOST_INITIALS = 3;

/** The first letters of a name, there for as long as the picture of its face is not, which fills the box that both stand in. */
export function isStandIn(scene: Scene, ink: Ink, cover: NodeIndex): boolean {
  const { view } = scene;
  if (ink.kind !== 'text' || !view.has(cover, FLAG_PICTURE)) return false;
  if (view.lineText(ink.line).trim().length > MOST_INITIALS) return false;
  const frame = view.box(commonAncestor(scene, ink.node, cover));
  const filled = intersect(view.box(cover), frame);
  return filled !== null && area(filled) >= 0.9 * area(frame);
}

/** Between words and what is laid beside them, CSS px. */
const LEAST_AIR = 2.5;

/** Avatars, cards and chips that are laid over their neighbour like shingles: alike, and each shifted by the same amount. Fields never are. */
export function areShingled(scene: Scene, a: NodeIndex, b: NodeIndex): boolean {
  const { view } = scene;
  if (view.has(a, FLAG_FIELD) || view.has(b, FLAG_FIELD)) return false;
  const pair = branches(scene, a, b);
  if (!pair) return false;
  const [first, second] = pair;
  if (signature(view, first) !== signature(view, second)) return false;
  const pulled = (at: NodeIndex) => view.margins(at).some((margin) => margin <= -2);
  if (!pulled(first) && !pulled(second)) return false;
  // Rows with gutters are pulled sideways too, and lie beside one another.
  const common = intersect(view.box(first), view.box(second));
  if (!common) return false;
  // Words that the next one lies on, or leaves no air, are no ornament.
  const around = grown(common, LEAST_AIR);
  const words = scene.inksIn(around).filter((ink) => ink.kind === 'text');
  const [lower, upper] =
    scene.order.box[first]! < scene.order.box[second]! ? [first, second] : [second, first];
  return !words.some(
    (ink) =>
      scene.contains(lower, ink.node) && !scene.contains(upper, ink.node) && meets(ink.full, around, 0),
  );
}
