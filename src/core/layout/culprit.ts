import { commonAncestor, displacedRoot } from './displace.js';
import { outAlong } from '../geometry/rect.js';
import type { Ink, Scene } from './scene.js';
import type { NodeIndex } from './view.js';

/**
 * Of two things that lie on one another, the element at fault: the one that was taken out of its place (the upper one
 * where both were); else the box that its content runs out of; else the upper one.
 */
export function overlapCulprit(scene: Scene, upper: Ink, lower: Ink): NodeIndex {
  const moved = displacedOf(scene, upper.node, lower.node);
  if (moved >= 0) return moved;
  const ran = ranOutOf(scene, upper, lower.node);
  if (ran >= 0) return ran;
  const ranLower = ranOutOf(scene, lower, upper.node);
  return ranLower >= 0 ? ranLower : upper.node;
}

/** The same, where only the upper one's box is known. */
export function coverCulprit(scene: Scene, cover: NodeIndex, hidden: Ink): NodeIndex {
  const moved = displacedOf(scene, cover, hidden.node);
  if (moved >= 0) return moved;
  const ran = ranOutOf(scene, hidden, cover);
  return ran >= 0 ? ran : cover;
}

function displacedOf(scene: Scene, upper: NodeIndex, lower: NodeIndex): NodeIndex {
  const above = displacedRoot(scene, upper, lower);
  if (above >= 0) return above;
  const below = displacedRoot(scene, lower, upper);
  return below >= 0 ? below : pullingSibling(scene, upper, lower);
}

/** The element that an ink runs out of, below the one that holds both; −1 when it stays in all of them. */
function ranOutOf(scene: Scene, ink: Ink, other: NodeIndex): NodeIndex {
  const { view } = scene;
  for (let at = ink.node; at >= 0 && !scene.contains(at, other); at = view.parent(at)) {
    if (view.style(at, 'display') === 'inline' || view.style(at, 'display') === 'contents') continue;
    if (outAlong(ink.full, view.box(at), 'y') > 3 || outAlong(ink.full, view.box(at), 'x') > 3) return at;
  }
  return -1;
}

/** An element between the two, or beside them, whose negative margin pulls one over the other. */
function pullingSibling(scene: Scene, a: NodeIndex, b: NodeIndex): NodeIndex {
  const { view } = scene;
  const common = commonAncestor(scene, a, b);
  if (common < 0) return -1;
  return (
    view
      .childrenOf(common)
      .find((child) => view.isRendered(child) && view.margins(child).some((margin) => margin <= -2)) ?? -1
  );
}
