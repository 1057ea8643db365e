import { FLAG_CONTROL, FLAG_REPLACED } from '../layout/snapshot.js';
import type { EndEscapes } from '../layout/escape.js';
import { isOutOfFlow } from '../layout/displace.js';
import { sceneOf } from '../layout/scene.js';
import { isMoved } from '../layout/transforms.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { paints } from '../layout/visible.js';
import { isDecoration } from './decoration.js';

/**
 * A drawer or panel that waits beside the page: wholly outside, put there by position or transform. Nobody misses it
 * until it is opened, so a root that clips may hide it.
 */
export function isOffCanvas(view: SnapshotView, escapes: EndEscapes, i: NodeIndex): boolean {
  if (escapes.startPastEdge(view.box(i)) < -1) return false;
  for (let at = i; at >= 0; at = view.parent(at)) {
    if (isOutOfFlow(view, at) || isMoved(view, at)) return true;
  }
  return false;
}

/** Something a reader would miss reaches past the edge: painted text, a control or a picture, not decoration. */
export function losesContent(view: SnapshotView, escapes: EndEscapes, i: NodeIndex): boolean {
  const lost = 1;
  const scene = sceneOf(view);
  const stack = [i];
  for (let at = stack.pop(); at !== undefined; at = stack.pop()) {
    if (!escapes.escapes(at) || isDecoration(scene, at)) continue;
    if (paints(view, at)) {
      if (view.has(at, FLAG_CONTROL | FLAG_REPLACED) && escapes.past[at]! > lost) return true;
      if (view.linesOf(at).some((line) => escapes.pastEdge(view.lineBox(line)) > lost)) return true;
    }
    stack.push(...view.childrenOf(at));
  }
  return false;
}
