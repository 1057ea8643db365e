import { perNode, perStyle } from './memo.js';
import { isMoved, isScaledUp } from './transforms.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** How an element got out of the place that the flow would give it; null when it stands in it. */
export type Displacement = 'absolute' | 'fixed' | 'offset' | 'transform' | 'negative-margin' | null;

/** Less than this is optical correction, CSS px. */
export const LEAST_DISPLACED = 2;

/** Positioned so that it takes no room in the flow (CSS Positioned Layout 3, section 2.1). */
export const isOutOfFlow = perStyle((view, i) => /^(absolute|fixed)$/.test(view.style(i, 'position')));

/** The outermost element around one, itself included, that was taken out of the flow; of none, one that no element comes up to. */
export function outermostLifted(view: SnapshotView, i: NodeIndex): NodeIndex {
  let found: NodeIndex = Infinity;
  for (let at = i; at >= 0; at = view.parent(at)) if (isOutOfFlow(view, at)) found = at;
  return found;
}

/** How an element is displaced. */
export const displacementOf = perNode((view, i): Displacement => {
  const styled = displacedByStyle(view, i);
  if (styled !== null) return styled;
  const { margin } = view.snapshot.nodes;
  for (let side = 0; side < 4; side++)
    if (margin[4 * i + side]! <= -LEAST_DISPLACED) return 'negative-margin';
  return null;
});

const displacedByStyle = perStyle((view, i): Displacement => {
  const position = view.style(i, 'position');
  if (position === 'absolute' || position === 'fixed') return position;
  if (isMoved(view, i)) return 'transform';
  const isOffset =
    position === 'relative' &&
    OFFSETS.some((side) => Math.abs(lengthOf(view.style(i, side))) >= LEAST_DISPLACED);
  return isOffset ? 'offset' : null;
});

const OFFSETS = ['top', 'right', 'bottom', 'left'] as const;

function lengthOf(value: string): number {
  return /^-?[\d.]+(px|%)$/.test(value) ? Number.parseFloat(value) : 0;
}

/** Drawn larger about its own place, which it did not leave (CSS Transforms 2). */
export const isGrownInPlace = perStyle((view, i) => !isOutOfFlow(view, i) && isScaledUp(view, i));

/** How far margins pull an element sideways, CSS px. */
export function pullsAside(view: SnapshotView, i: NodeIndex): number {
  const [, right, , left] = view.margins(i);
  return -Math.min(left, right);
}
