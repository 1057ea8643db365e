import { displacementOf, LEAST_DISPLACED, pullsAside } from './displace.js';
import type { Scene } from './scene.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** The element that holds both. */
export function commonAncestor(scene: Scene, a: NodeIndex, b: NodeIndex): NodeIndex {
  let at = a;
  while (at >= 0 && !scene.contains(at, b)) at = scene.view.parent(at);
  return at;
}

/** The two elements just below the one that holds both; null when one holds the other. */
export function branches(scene: Scene, a: NodeIndex, b: NodeIndex): [NodeIndex, NodeIndex] | null {
  const common = commonAncestor(scene, a, b);
  if (common === a || common === b) return null;
  const below = (start: NodeIndex) => {
    let at = start;
    while (at >= 0 && scene.view.parent(at) !== common) at = scene.view.parent(at);
    return at;
  };
  return [below(a), below(b)];
}

/**
 * The outermost displaced element from `i` upwards that doesn't hold `other`; −1 when none is.
 * @param across how wide the two lie on one another, CSS px: a margin that pulls sideways by less is not why
 */
export function displacedRoot(scene: Scene, i: NodeIndex, other: NodeIndex, across = 0): NodeIndex {
  const { view } = scene;
  let found = -1;
  let aside = -1;
  for (let at = i; at >= 0 && !scene.contains(at, other); at = view.parent(at)) {
    const displacement = displacementOf(view, at);
    if (displacement === null) continue;
    if (displacement !== 'negative-margin') found = at;
    // The gutters of a row are not why something that was taken out of the flow within it lies where it does.
    else if (found < 0 && pullsUp(view, at, other)) found = at;
    else if (aside < 0 && pullsAside(view, at) >= across - LEAST_DISPLACED) aside = at;
  }
  return found >= 0 ? found : aside;
}

/** Whether a margin pulls an element up over what comes before it, or what comes after it up over the element. */
function pullsUp(view: SnapshotView, i: NodeIndex, other: NodeIndex): boolean {
  const [top, , bottom] = view.margins(i);
  return (other < i ? top : bottom) <= -LEAST_DISPLACED;
}
