import { commonAncestor, displacedRoot } from './displace.js';
import { intersect, outAlong, type Rect } from '../geometry/rect.js';
import type { Ink, Scene } from './scene.js';
import type { NodeIndex } from './view.js';
import { isContents, isInline } from './displays.js';
import { hasOwnWidth, heightFrom } from './own-size.js';
import { FLAG_REPLACED } from './snapshot.js';

/**
 * Of two things that lie on one another, the element at fault: the one that was taken out of its place (the upper one
 * where both were); else the box that its content runs out of; else the upper one.
 */
export function overlapCulprit(scene: Scene, upper: Ink, lower: Ink): NodeIndex {
  const across = intersect(upper.shown!, lower.shown!)?.width ?? 0;
  const candidates = [
    displacedRoot(scene, upper.node, lower.node, across),
    displacedRoot(scene, lower.node, upper.node, across),
    ranOutOf(scene, upper, lower.node),
    ranOutOf(scene, lower, upper.node),
    pullingSibling(scene, upper.node, lower.node),
  ];
  return candidates.find((node) => node >= 0) ?? upper.node;
}

/** The same, where only the upper one's box is known. */
export function coverCulprit(scene: Scene, cover: NodeIndex, hidden: Ink): NodeIndex {
  const across = intersect(scene.view.box(cover), hidden.full)?.width ?? 0;
  const candidates = [
    displacedRoot(scene, cover, hidden.node, across),
    displacedRoot(scene, hidden.node, cover, across),
    boxRanOutOf(scene, cover, scene.view.box(cover), hidden.node),
    ranOutOf(scene, hidden, cover),
    pullingSibling(scene, cover, hidden.node),
  ];
  return candidates.find((node) => node >= 0) ?? cover;
}

/**
 * Of the elements from an ink outwards, the one at which it gets past an edge: the outermost that reaches past it about as
 * far as the ink does. One that sticks out less, a row with negative margins for instance, is not why.
 * @param chain innermost first
 * @param past how far an element reaches past the edge, CSS px
 * @param wanted how far the ink does
 */
export function escapeRoot(
  chain: readonly NodeIndex[],
  past: (i: NodeIndex) => number,
  wanted: number,
): NodeIndex | undefined {
  const reaching = (least: number) => chain.findLast((at) => past(at) > Math.max(2, least));
  return reaching(wanted - 2) ?? reaching(wanted / 2);
}

/**
 * The element that an ink runs out of, or what in it is wider than that by a width of its own, below the one that holds both;
 * −1 when it stays in all of them.
 */
function ranOutOf(scene: Scene, ink: Ink, other: NodeIndex): NodeIndex {
  return boxRanOutOf(scene, ink.node, ink.full, other);
}

function boxRanOutOf(scene: Scene, from: NodeIndex, box: Rect, other: NodeIndex): NodeIndex {
  const { view } = scene;
  let rigid = -1;
  for (let at = from; at >= 0 && !scene.contains(at, other); at = view.parent(at)) {
    const isReplaced = view.has(at, FLAG_REPLACED);
    if ((isInline(view, at) && !isReplaced) || isContents(view, at)) continue;
    const runsOut = (axis: 'x' | 'y', of: NodeIndex) => outAlong(box, view.box(of), axis) > 3;
    if (runsOut('y', at))
      return heightFrom(view, at, (around) => !scene.contains(around, other) && runsOut('y', around));
    if (runsOut('x', at))
      return rigid >= 0 && view.box(rigid).width > view.contentBox(at).width + 3 ? rigid : at;
    if (isReplaced || hasOwnWidth(view, at)) rigid = at;
  }
  return -1;
}

/** An element from the first of the two to the second whose negative margin pulls the second up over the first. */
function pullingSibling(scene: Scene, a: NodeIndex, b: NodeIndex): NodeIndex {
  const { view } = scene;
  const common = commonAncestor(scene, a, b);
  if (common < 0) return -1;
  const [first, second] = a < b ? [a, b] : [b, a];
  const pulls = (child: NodeIndex) => {
    const [top, , bottom] = view.margins(child);
    if (!view.isRendered(child) || child > second || scene.lastOf(child) < first) return false;
    return (!scene.contains(child, first) && top <= -2) || (!scene.contains(child, second) && bottom <= -2);
  };
  return view.childrenOf(common).find(pulls) ?? -1;
}
