import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { looksGenerated, step } from './selector.js';

/**
 * The path of an element without positions: equal for repeated siblings and for the same element on another render,
 * so sightings with equal signatures are the same defect. Ids end the path, since what lies above can't matter.
 */
export function signature(view: SnapshotView, i: NodeIndex): string {
  const parts: string[] = [];
  for (let at = i; at >= 0; at = view.parent(at)) {
    const id = view.id(at);
    if (id !== '' && !looksGenerated(id)) {
      parts.unshift(`#${unnumbered(id)}`);
      break;
    }
    parts.unshift(step(view, at));
  }
  return parts.join('>');
}

/** Repeated siblings are numbered by their ids. */
function unnumbered(id: string): string {
  return id.replace(/\d+/g, '0');
}

/** The same of an element and the two it stands in, ids aside: equal for all that are made alike, wherever they stand. */
export function likeness(view: SnapshotView, i: NodeIndex): string {
  const parts: string[] = [];
  for (let at = i; at >= 0 && parts.length < 3; at = view.parent(at)) parts.unshift(step(view, at));
  return parts.join('>');
}
