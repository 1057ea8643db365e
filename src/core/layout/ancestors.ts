import { isContents, isInline } from './displays.js';
import { FLAG_CONTROL } from './snapshot.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** The nearest control that an element stands in, itself included; −1 when none does. */
export function controlAround(view: SnapshotView, i: NodeIndex): NodeIndex {
  for (let at = i; at >= 0; at = view.parent(at)) if (view.has(at, FLAG_CONTROL)) return at;
  return -1;
}

/** The box that an element's lines are laid out in: the element itself, or the nearest ancestor that is not inline. */
export function blockAround(view: SnapshotView, i: NodeIndex): NodeIndex {
  let at = i;
  while (at > 0 && (isInline(view, at) || isContents(view, at))) at = view.parent(at);
  return at;
}
