import { outAlong, type Rect } from '../geometry/rect.js';
import { isInline } from '../layout/displays.js';
import { heightFrom } from '../layout/own-size.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** A rounding is not too low, CSS px. */
const LEAST_PX = 2;

/** The elements from one up to a box that it stands in, the box left out. */
export function chainTo(view: SnapshotView, from: NodeIndex, box: NodeIndex): NodeIndex[] {
  const chain: NodeIndex[] = [];
  for (let at = from; at !== box; at = view.containingElement(at)) chain.push(at);
  return chain;
}

/** The innermost block up to a box that is too low for what stands in it, or what that has its height from. */
export function tooLowFor(view: SnapshotView, content: Rect, from: NodeIndex, box: NodeIndex): NodeIndex {
  const isTooLow = (at: NodeIndex) => outAlong(content, view.box(at), 'y') > LEAST_PX;
  const low = chainTo(view, from, box).find((at) => !isInline(view, at) && isTooLow(at));
  return low === undefined ? box : heightFrom(view, low, (around) => around >= box && isTooLow(around));
}
