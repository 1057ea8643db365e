import { pxOf } from '../css/lengths.js';
import { isFlow } from './displays.js';
import { perNode } from './memo.js';
import { beginsAtFarEnd } from './scroll-origin.js';
import { holderOf, scrollportOf } from './sticking.js';
import { fixedRoot } from './viewport-layer.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** What a sticky element sticks in, the page or a scroll container. Lengths down its content, CSS px. */
interface Scrollport {
  /** −1 for the page. */
  readonly node: NodeIndex;
  /** Where the top of its content is on the page. */
  readonly origin: number;
  /** How far it is scrolled, and can be. */
  readonly scrolled: number;
  readonly most: number;
  /** How much of its content it shows at once. */
  readonly height: number;
  /** From its edges to where distances are measured from: a container's padding. */
  readonly inset: { readonly top: number; readonly bottom: number };
}

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
  // A container is no box among its own content: it is the one that stays.
  const start = around.y - (holder === port.node ? 0 : port.origin);
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

function portOf(view: SnapshotView, i: NodeIndex): Scrollport | null {
  const { scroll, viewport, document: page } = view.snapshot;
  const node = scrollportOf(view, i);
  if (node < 0) {
    if (fixedRoot(view, i) >= 0) return null;
    const height = viewport.shownHeight;
    const most = Math.max(0, page.height - height);
    return { node, origin: 0, scrolled: scroll.y, most, height, inset: { top: 0, bottom: 0 } };
  }
  // What is cut off may be scrolled by a script, and some containers are scrolled from their far end.
  if (!/auto|scroll/.test(view.style(node, 'overflow-y')) || beginsAtFarEnd(view, node).y) return null;
  const [, height, , scrollHeight] = view.scrollSizes(node);
  const [window, content] = [view.paddingBox(node), view.contentBox(node)];
  const scrolled = view.scrolledBy(node).y;
  return {
    node,
    origin: window.y - scrolled,
    scrolled,
    most: Math.max(0, scrollHeight - height),
    height,
    inset: {
      top: content.y - window.y,
      bottom: Math.max(0, window.y + window.height - content.y - content.height),
    },
  };
}

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
