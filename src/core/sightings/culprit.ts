import { blockAround } from '../layout/ancestors.js';
import { branches, commonAncestor, displacedRoot } from '../layout/branches.js';
import { displacementOf } from '../layout/displace.js';
import { outAlong, type Rect } from '../geometry/rect.js';
import type { Ink, Scene } from '../layout/scene.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { isContents, isFlow, isGrid, isInlineText } from '../layout/displays.js';
import { hasOwnWidth, heightFrom } from '../layout/own-size.js';
import { FLAG_REPLACED } from '../layout/snapshot.js';

/** One of two things that lie on one another: its element, and all of its box. */
interface Party {
  readonly node: NodeIndex;
  readonly full: Rect;
}

/**
 * Of two things that lie on one another, the element at fault: the one that was taken out of the box it stands in (the upper
 * one where both were); else the box that one of them runs out of; else the one that was moved within its box; else the upper
 * one, or the item of a grid that it is in.
 * @param common where they meet
 */
export function overlapCulprit(scene: Scene, upper: Party, lower: Party, common: Rect): NodeIndex {
  const across = common.width;
  const up = displacedRoot(scene, upper.node, lower.node, across);
  const down = displacedRoot(scene, lower.node, upper.node, across);
  // What is fixed to the screen has its place there; what was moved under it has not.
  const isAtScreen = (node: NodeIndex) => node >= 0 && displacementOf(scene.view, node) === 'fixed';
  const isBar = isAtScreen(up) && !isAtScreen(down);
  const strays = (isBar ? [down, up] : [up, down]).filter((node) => node >= 0 && isStray(scene.view, node));
  const candidates = [
    ...strays,
    ranOutOf(scene, upper, lower.node, common),
    ranOutOf(scene, lower, upper.node, common),
    up,
    down,
    pullingSibling(scene, upper.node, lower.node),
    widerThanColumn(scene, upper.node, lower.node),
  ];
  return candidates.find((node) => node >= 0) ?? itemOfGrid(scene, upper.node, lower.node);
}

/**
 * Of two that stand in a flow of blocks and meet all the same, as in columns of text, the table, picture or box of a fixed width that one
 * is in, rather the first: that does not yield to its column. −1 where there is none.
 */
function widerThanColumn(scene: Scene, from: NodeIndex, other: NodeIndex): NodeIndex {
  const { view } = scene;
  const parts = branches(scene, from, other);
  if (!parts || parts[0] < 0 || !isFlow(view, view.parent(parts[0]))) return -1;
  const isRigid = (node: NodeIndex) =>
    view.style(node, 'display') === 'table' || view.has(node, FLAG_REPLACED) || hasOwnWidth(view, node);
  return parts.find(isRigid) ?? -1;
}

/** Of two that are in items of one grid, the item of the first: these share a field. Else the first itself. */
function itemOfGrid(scene: Scene, from: NodeIndex, other: NodeIndex): NodeIndex {
  const common = commonAncestor(scene, from, other);
  if (common < 0 || !isGrid(scene.view, common)) return from;
  return scene.view.childrenOf(common).find((item) => scene.contains(item, from)) ?? from;
}

/** The same, where only the upper one's box is known. */
export function coverCulprit(scene: Scene, cover: NodeIndex, hidden: Ink, common: Rect): NodeIndex {
  return overlapCulprit(scene, { node: cover, full: scene.view.box(cover) }, hidden, common);
}

/** Whether an element that was moved has left the box that it stands in, in the page's order. */
function isStray(view: SnapshotView, i: NodeIndex): boolean {
  const around = view.parent(i);
  if (around < 0 || displacementOf(view, i) === 'fixed') return true;
  const [box, outer] = [view.box(i), view.box(blockAround(view, around))];
  return outAlong(box, outer, 'x') > 3 || outAlong(box, outer, 'y') > 3;
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
 * The element that one of the two runs out of to where they meet, or what in it sticks out of that: the outermost of a width of
 * its own where there is one. Below the one that holds both; −1 when it stays in all of them.
 */
function ranOutOf(scene: Scene, { node: from, full: box }: Party, other: NodeIndex, common: Rect): NodeIndex {
  const { view } = scene;
  let rigid = -1;
  let below = -1;
  for (let at = from; at >= 0 && !scene.contains(at, other); at = view.parent(at)) {
    if (isInlineText(view, at) || isContents(view, at)) continue;
    const runsOut = (axis: 'x' | 'y', of: NodeIndex) =>
      outAlong(box, view.box(of), axis) > 3 && outAlong(common, view.box(of), axis) > 1;
    if (runsOut('y', at))
      return heightFrom(view, at, (around) => !scene.contains(around, other) && runsOut('y', around));
    if (runsOut('x', at)) {
      if (rigid >= 0 && view.box(rigid).width > view.contentBox(at).width + 3) return rigid;
      return below >= 0 && outAlong(view.box(below), view.box(at), 'x') > 3 ? below : at;
    }
    if (view.has(at, FLAG_REPLACED) || hasOwnWidth(view, at)) rigid = at;
    below = at;
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
