import { fixedRoot, isFixed } from './viewport-layer.js';
import { rightOf, union, type Rect } from '../geometry/rect.js';
import { contentClipX, isFrame, isScrollingFrame, type ClipX } from './clip.js';
import { mainScrollerOf, scrollsSideways } from './main-scroller.js';
import { perSnapshot } from './memo.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** Less than this past the edge is rounding, not escape: layout is in 1/64 px, scroll sizes are in whole px. */
const TOLERANCE = 0.5;

/** What scrolls sideways by what reaches past its end: the page, a frame's document, or a scroll container. */
export interface Window {
  /** The frame or the container; −1 for the page. */
  readonly holder: NodeIndex;
  /** Where it begins and how wide it is, CSS px. */
  readonly x: number;
  readonly width: number;
  readonly rtl: boolean;
}

/**
 * How far each element reaches past the inline-end edge of the page, or of a frame's document (right, or left where it is written from
 * right to left), in CSS px, after every clip on the way: what a scroll container or a clipping box keeps to itself doesn't count. Elements
 * fixed to the viewport count 0, since they don't make it scroll.
 */
export class EndEscapes {
  /** By element: the farther of its box and its own text lines; 0 when neither reaches past the edge, and outside of the window. */
  readonly past: Float64Array;
  private readonly clips = new Map<NodeIndex, ClipX>();

  constructor(
    private readonly view: SnapshotView,
    readonly window: Window,
  ) {
    const { holder } = window;
    // What stands in it is not cut off at its edge: it can be scrolled to.
    if (holder >= 0) this.clips.set(holder, { left: -Infinity, right: Infinity, scrolled: false });
    this.past = new Float64Array(view.count);
    const heldBy = holder < 0 ? -1 : fixedRoot(view, holder);
    const isStill = (i: NodeIndex) =>
      holder < 0 || !isFrame(view, holder)
        ? isFixed(view, i) && fixedRoot(view, i) !== heldBy
        : view.style(i, 'position') === 'fixed' && view.containingElement(i) === holder;
    for (const i of this.nodes()) {
      if (!view.isRendered(i) || isStill(i)) continue;
      const box = view.box(i);
      let past = 0;
      if (box.width > 0 || box.height > 0) {
        past = Math.min(this.pastEdge(box), this.clipPast(view.containingElement(i)));
      }
      for (const line of view.linesOf(i)) {
        past = Math.max(past, Math.min(this.pastEdge(view.lineBox(line)), this.clipPast(i)));
      }
      this.past[i] = past >= TOLERANCE ? past : 0;
    }
  }

  /** What stands in the window, in the page's order. */
  private *nodes(): Generator<NodeIndex> {
    const { view } = this;
    const { holder } = this.window;
    for (let i = holder + 1; i < view.count && view.parent(i) >= holder; i++) yield i;
  }

  /** Where an escape begins. */
  beginnings(): NodeIndex[] {
    return [...this.nodes()].filter((i) => this.beginsAt(i));
  }

  escapes(i: NodeIndex): boolean {
    return i >= 0 && this.past[i]! > 0;
  }

  /** Whether the escape begins at the element: it escapes and what it is laid out in doesn't. */
  beginsAt(i: NodeIndex): boolean {
    return this.escapes(i) && !this.escapes(this.view.containingElement(i));
  }

  /** How far a rectangle reaches past the edge, before clips; negative when it stays inside. */
  pastEdge(rect: Rect): number {
    const { x, width, rtl } = this.window;
    return rtl ? x - rect.x : rightOf(rect) - x - width;
  }

  /** How far a rectangle's nearer edge is past the page's edge: not negative when all of it is outside. */
  startPastEdge(rect: Rect): number {
    const { x, width, rtl } = this.window;
    return rtl ? x - rightOf(rect) : rect.x - x - width;
  }

  /** Whether `inner` reaches the inline-end edge of `outer`, within `slack` CSS px. */
  reachesEnd(inner: Rect, outer: Rect, slack: number): boolean {
    return this.pastEdge(inner) >= this.pastEdge(outer) - slack;
  }

  /** What to outline: the element's box with those of its own lines that escape. */
  extent(i: NodeIndex): Rect {
    const view = this.view;
    return view
      .linesOf(i)
      .map((line) => view.lineBox(line))
      .filter((box) => this.pastEdge(box) >= TOLERANCE)
      .reduce(union, view.box(i));
  }

  private clipPast(i: NodeIndex): number {
    if (i < 0) return Infinity;
    const clip = contentClipX(this.view, i, this.clips);
    const { x, width, rtl } = this.window;
    return rtl ? x - clip.left : clip.right - x - width;
  }
}

/** The escapes of a render; every rule shares them. */
export const endEscapes = perSnapshot(
  (view) =>
    new EndEscapes(view, {
      holder: -1,
      x: 0,
      width: view.snapshot.viewport.width,
      rtl: view.snapshot.direction === 'rtl',
    }),
);

/** Scroll bars are no wider, CSS px. */
const WIDEST_BAR = 25;

/** The same of every frame whose document can be read and scrolled sideways. */
export const frameEscapes = perSnapshot((view): readonly EndEscapes[] => {
  const found: EndEscapes[] = [];
  for (let i = 0; i < view.count; i++) {
    const root = isScrollingFrame(view, i) && view.isRendered(i) ? view.childrenOf(i)[0] : undefined;
    if (root === undefined || /hidden|clip/.test(overflowOf(view, root))) continue;
    const { x, width } = view.contentBox(i);
    const bar = width - view.box(root).width;
    const hasBar = bar > 0 && bar <= WIDEST_BAR;
    const rtl = view.style(root, 'direction') === 'rtl';
    if (width > 0)
      found.push(new EndEscapes(view, { holder: i, x, width: hasBar ? width - bar : width, rtl }));
  }
  return found;
});

/** The same of what scrolls in the page's place; null where nothing does, or it is not scrolled sideways. */
export const mainEscapes = perSnapshot((view): EndEscapes | null => {
  const holder = mainScrollerOf(view);
  if (holder < 0 || !scrollsSideways(view, holder)) return null;
  const [width] = view.scrollSizes(holder);
  return new EndEscapes(view, {
    holder,
    x: view.paddingBox(holder).x,
    width,
    rtl: view.style(holder, 'direction') === 'rtl',
  });
});

/** CSS Overflow 3, section 3.3: the root's, or its body's where that is visible. */
function overflowOf(view: SnapshotView, root: NodeIndex): string {
  const own = view.style(root, 'overflow-x');
  const body = view.childrenOf(root).find((child) => view.tag(child) === 'body');
  return own === 'visible' && body !== undefined ? view.style(body, 'overflow-x') : own;
}
