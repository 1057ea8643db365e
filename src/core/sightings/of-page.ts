import type { SnapshotView } from '../layout/view.js';
import type { Sighting } from './sighting.js';

/** A sighting that is about the page as a whole. */
export function ofPage(view: SnapshotView, what: Pick<Sighting, 'key' | 'by' | 'message'>): Sighting {
  const { width, height } = view.snapshot.viewport;
  return { node: view.root, related: [], rect: { x: 0, y: 0, width, height }, ...what };
}
