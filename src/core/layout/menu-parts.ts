import { FLAG_CONTROL } from './snapshot.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** A list of fewer links is no menu. */
export const LEAST_LINKS = 3;

/** The links in an element, itself among them. */
export function linksIn(view: SnapshotView, node: NodeIndex): number {
  let links = 0;
  const waiting = [node];
  for (let at = waiting.pop(); at !== undefined; at = waiting.pop()) {
    if (view.tag(at) === 'a') links++;
    waiting.push(...view.childrenOf(at));
  }
  return links;
}

/** A control that is no link, or an element with nothing but one in it. */
export function isButton(view: SnapshotView, node: NodeIndex): boolean {
  if (view.tag(node) !== 'a' && view.has(node, FLAG_CONTROL)) return true;
  const children = view.childrenOf(node);
  return children.length === 1 && isButton(view, children[0]!);
}
