import { union, type Rect } from '../geometry/rect.js';
import type { Ink } from '../layout/scene.js';
import type { NodeIndex } from '../layout/view.js';
import type { Sighting } from './sighting.js';

/** Two things that lie on one another. */
export interface Pair {
  readonly upper: Ink;
  readonly lower: Ink;
  /** Where they do. */
  readonly common: Rect;
  readonly culprit: NodeIndex;
}

/** The one that is painted over the other comes first. */
export function stacked(a: Ink, b: Ink): [upper: Ink, lower: Ink] {
  return a.rank >= b.rank ? [a, b] : [b, a];
}

/** The part of a sighting that says what takes part in it. */
export function takingPart(pairs: readonly Pair[]): Pick<Sighting, 'affected' | 'rect'> {
  return {
    affected: pairs.flatMap(({ upper, lower }) => [upper.node, lower.node]),
    rect: pairs.flatMap(({ upper, lower }) => [upper.shown!, lower.shown!]).reduce(union),
  };
}
