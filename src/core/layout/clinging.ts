import { pxOf } from '../css/lengths.js';
import { isFlow } from './displays.js';
import { perNode } from './memo.js';
import { portOf, type Scrollport } from './scrollport.js';
import { holderOf } from './sticking.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** How a sticky element moves while what it sticks in is scrolled. */
export interface Clinging {
  readonly in: Scrollport;
  /** The top of it, from the top of the content, by how far that is scrolled. */
  readonly at: (scrolled: number) => number;
}

/**
 * How a sticky element moves (CSS Positioned Layout 3, section 3.4): it keeps its distances to the edges of what it sticks in, and stays in the
 * box that holds it. Null where its place in the flow, or how its container scrolls, is not to be told.
 */
export const clingingOf = perNode((view, i): Clinging | null => {
  const [top, bottom] = [pxOf(view.style(i, 'top')), pxOf(view.style(i, 'bottom'))];
  const holder = holderOf(view, i);
  const port = portOf(view, i);
  if (holder < 0 || port === null || (top === null && bottom === null)) return null;
  const { height } = view.box(i);
  const around = view.contentBox(holder);
  const start = around.y - port.origin;
  // What stands in the container itself stays as long as there is anything to scroll.
  const [first, last] = holder === port.node ? [0, Infinity] : [start, start + around.height - height];
  const place = (rest: number, scrolled: number) => {
    let at = rest;
    const foot = scrolled + port.height - port.inset.bottom;
    if (bottom !== null) at = Math.max(first, Math.min(at, foot - bottom - height));
    if (top !== null) at = Math.min(last, Math.max(at, scrolled + port.inset.top + top));
    return at;
  };
  const rest = restOf(view, i, port);
  // What does not come out where it was seen is laid out in a way that this does not know.
  if (rest === null || Math.abs(place(rest, port.scrolled) - (view.box(i).y - port.origin)) > 2) return null;
  return { in: port, at: (scrolled) => place(rest, scrolled) };
});

/**
 * Where it would be if it did not stick, from the top of the content: where it is, or, while it is held up at the foot of what it sticks in,
 * after what precedes it. Of a container that is scrolled already, what is held at its top may come from anywhere above.
 */
function restOf(view: SnapshotView, i: NodeIndex, port: Scrollport): number | null {
  const box = view.box(i);
  const [top, bottom] = [pxOf(view.style(i, 'top')), pxOf(view.style(i, 'bottom'))];
  const at = box.y - port.origin;
  if (port.node >= 0 && port.scrolled > 0 && top !== null && at <= port.scrolled + port.inset.top + top + 1)
    return null;
  const foot = port.scrolled + port.height - port.inset.bottom - (bottom ?? 0);
  if (bottom === null || Math.abs(at + box.height - foot) > 1) return at;
  const siblings = view.childrenOf(view.parent(i));
  const before = siblings.slice(0, siblings.indexOf(i)).findLast((each) => isInFlow(view, each));
  if (before === undefined || !isFlow(view, before)) return null;
  const gap = Math.max(view.margins(before)[2], view.margins(i)[0]);
  const end = view.box(before).y + view.box(before).height - port.origin;
  return Math.max(at, end + gap);
}

function isInFlow(view: SnapshotView, i: NodeIndex): boolean {
  return view.isRendered(i) && view.style(i, 'position') === 'static' && view.style(i, 'float') === 'none';
}
