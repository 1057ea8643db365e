import { mainScrollerOf } from './main-scroller.js';
import { perSnapshot } from './memo.js';
import { beginsAtFarEnd } from './scroll-origin.js';
import { fixedRoot } from './viewport-layer.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** What a sticky element sticks in, the page or a scroll container. Lengths down its content, CSS px. */
export interface Scrollport {
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

/** What is on the way to the page that scrolls or cuts: there an element sticks, and not at the screen; −1 where nothing is. */
export function scrollportOf(view: SnapshotView, i: NodeIndex): NodeIndex {
  for (let at = view.parent(i); at > view.body; at = view.parent(at))
    if (/auto|scroll|hidden/.test(view.style(at, 'overflow-x') + view.style(at, 'overflow-y'))) return at;
  return -1;
}

/** What an element sticks in, if it does; null where it can't be told how that is scrolled. */
export function portOf(view: SnapshotView, i: NodeIndex): Scrollport | null {
  const node = scrollportOf(view, i);
  if (node >= 0) return containerPort(view, node);
  return fixedRoot(view, i) >= 0 ? null : pagePort(view);
}

/** The page, or what scrolls in its place; null where it can't be told how that is scrolled. */
export const mainPortOf = perSnapshot((view): Scrollport | null => {
  const main = mainScrollerOf(view);
  return main < 0 ? pagePort(view) : containerPort(view, main);
});

function pagePort({ snapshot: { scroll, viewport, document: page } }: SnapshotView): Scrollport {
  const height = viewport.shownHeight;
  const most = Math.max(0, page.height - height);
  return { node: -1, origin: 0, scrolled: scroll.y, most, height, inset: { top: 0, bottom: 0 } };
}

function containerPort(view: SnapshotView, node: NodeIndex): Scrollport | null {
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
