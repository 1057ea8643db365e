import { perSnapshot } from '../layout/memo.js';
import { paintedOf } from '../layout/painted.js';
import type { Scene } from '../layout/scene.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import type { Loss } from './loss.js';

/** In a part that a button of the page opens further: “read more”, an accordion, a panel, a sheet with its handle in it. */
export function isWindowOnMore({ view }: Scene, { ink, cutter, axis, whole }: Loss): boolean {
  const { parts } = openedOf(view);
  const handle = handleOf(view, cutter);
  // Under its handle a sheet waits with all that it holds.
  if (handle !== undefined && whole && axis === 'y' && handle < ink.node) return true;
  if (parts.size === 0) return false;
  for (let at = ink.node; at >= 0; at = view.parent(at)) if (parts.has(at)) return true;
  return false;
}

/** The button in an element that opens that further; undefined where there is none. */
export function handleOf(view: SnapshotView, i: NodeIndex): NodeIndex | undefined {
  return openedOf(view).around.get(i);
}

/** What can be opened, and what is opened by a button in itself: the button of a menu that is a row on this screen is not there. */
const openedOf = perSnapshot((view) => {
  const { openers } = view.snapshot;
  const { painted } = paintedOf(view);
  const parts = new Set<NodeIndex>();
  const around = new Map<NodeIndex, NodeIndex>();
  for (let at = 0; at < openers.length; at += 2) {
    const [opener, opened] = [openers[at]!, openers[at + 1]!];
    if (!painted[opener]) continue;
    if (view.parent(opener) === opened) around.set(opened, opener);
    else parts.add(opened);
  }
  return { parts, around };
});

/** A part whose size runs from one to another is a part that opens: a caption that shows its first line until it is pointed at, a field to search in. */
const OPENS = {
  x: /(^|[ ,])(max-)?(width|inline-size)(,|$)/,
  y: /(^|[ ,])(max-)?(height|block-size)(,|$)/,
};

/** Whether what is gone whole is in a part that says that its size will change along that axis. */
export function isOpenedBySize({ view }: Scene, { cutter, axis, whole }: Loss): boolean {
  return whole && OPENS[axis].test(view.style(cutter, 'transition-property'));
}
