import type { NodeIndex, SnapshotView } from './view.js';

/** Whether an element paints anything: rendered, `visibility: visible`, and no ancestor fully transparent. */
export function paints(view: SnapshotView, i: NodeIndex): boolean {
  if (!view.isRendered(i) || view.style(i, 'visibility') !== 'visible') return false;
  for (let at = i; at >= 0; at = view.parent(at)) {
    if (view.style(at, 'opacity') === '0') return false;
  }
  return true;
}
