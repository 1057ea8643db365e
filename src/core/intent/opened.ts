import { perSnapshot } from '../layout/memo.js';
import { paintedOf } from '../layout/painted.js';
import type { Scene } from '../layout/scene.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import type { Loss } from './loss.js';

/** In a part that a button of the page opens further: “read more”, an accordion, a panel, a sheet with its handle in it. */
export function isWindowOnMore({ view }: Scene, { ink, cutter, axis, whole }: Loss): boolean {
  const handle = handlesOf(view).get(cutter);
  // Below its handle a part waits with all that it holds.
  if (handle !== undefined && whole && axis === 'y' && handle < ink.node) return true;
  const opened = openedOf(view);
  if (opened.size === 0) return false;
  for (let at = ink.node; at >= 0; at = view.parent(at)) if (opened.has(at)) return true;
  return false;
}

/** Whether an element holds the button that opens it further. */
export function hasHandle(view: SnapshotView, i: NodeIndex): boolean {
  const handle = handlesOf(view).get(i);
  return handle !== undefined && view.parent(handle) === i;
}

const openedOf = perSnapshot((view): ReadonlySet<NodeIndex> => {
  return new Set(pairsIn(view, view.snapshot.openers).map(([, opened]) => opened));
});

/** By what is closed: the one button that says so. In a list of questions each opens its own answer, and none the list. */
const handlesOf = perSnapshot((view): ReadonlyMap<NodeIndex, NodeIndex> => {
  const found = new Map<NodeIndex, NodeIndex>();
  const several = new Set<NodeIndex>();
  for (const [handle, closed] of pairsIn(view, view.snapshot.handles)) {
    if (found.has(closed)) several.add(closed);
    found.set(closed, handle);
  }
  for (const closed of several) found.delete(closed);
  return found;
});

/** What can be opened: the button of a menu that is a row on this screen is not there. */
function pairsIn(view: SnapshotView, pairs: Int32Array): [control: NodeIndex, part: NodeIndex][] {
  const { painted } = paintedOf(view);
  const found: [NodeIndex, NodeIndex][] = [];
  for (let at = 0; at < pairs.length; at += 2)
    if (painted[pairs[at]!]) found.push([pairs[at]!, pairs[at + 1]!]);
  return found;
}

/** A part whose size runs from one to another is a part that opens: a caption that shows its first line until it is pointed at, a field to search in. */
const OPENS = {
  x: /(^|[ ,])(max-)?(width|inline-size)(,|$)/,
  y: /(^|[ ,])(max-)?(height|block-size)(,|$)/,
};

/** Whether what is gone whole is in a part that says that its size will change along that axis. */
export function isOpenedBySize({ view }: Scene, { cutter, axis, whole }: Loss): boolean {
  return whole && OPENS[axis].test(view.style(cutter, 'transition-property'));
}
