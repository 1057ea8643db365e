import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { isNamed, step } from './names.js';
import { repeatedSteps } from './repeats.js';

/**
 * The path of an element without positions: equal for repeated elements and for the same element on another render, so
 * sightings with equal signatures are the same defect. Ids end the path, since what lies above can't matter.
 */
export function signature(view: SnapshotView, i: NodeIndex): string {
  const steps = repeatedSteps(view);
  const parts: string[] = [];
  for (let at = i; at >= 0; at = view.parent(at)) {
    parts.unshift(steps[at]!);
    if (at !== view.body && isNamed(view, at)) break;
  }
  return parts.join('>');
}

/** The same of an element and the two it stands in, ids aside: equal for all that are made alike, wherever they stand. */
export function likeness(view: SnapshotView, i: NodeIndex): string {
  const steps = repeatedSteps(view);
  const parts: string[] = [];
  for (let at = i; at >= 0 && parts.length < 3; at = view.parent(at))
    parts.unshift(isNamed(view, at) ? step(view, at) : steps[at]!);
  return parts.join('>');
}
