import { isFixed } from './viewport-layer.js';
import { rightOf, union, type Rect } from '../geometry/rect.js';
import { contentClipX, type ClipX } from './clip.js';
import { perSnapshot } from './memo.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** Less than this past the edge is rounding, not escape: layout is in 1/64 px, scroll sizes are in whole px. */
const TOLERANCE = 0.5;

/**
 * How far each element reaches past the page's inline-end edge (right, or left in a right-to-left page), in CSS px,
 * after every clip on the way: what a scroll container or a clipping box keeps to itself doesn't count. Elements fixed
 * to the viewport count 0, since they don't make a page scroll.
 */
export class EndEscapes {
  /** By element: the farther of its box and its own text lines; 0 when neither reaches past the edge. */
  readonly past: Float64Array;
  private readonly clips = new Map<NodeIndex, ClipX>();
  private readonly edge: number;
  private readonly rtl: boolean;

  constructor(private readonly view: SnapshotView) {
    this.edge = view.snapshot.viewport.width;
    this.rtl = view.snapshot.direction === 'rtl';
    this.past = new Float64Array(view.count);
    for (let i = 0; i < view.count; i++) {
      if (!view.isRendered(i) || isFixed(view, i)) continue;
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

  escapes(i: NodeIndex): boolean {
    return i >= 0 && this.past[i]! > 0;
  }

  /** Whether the escape begins at the element: it escapes and what it is laid out in doesn't. */
  beginsAt(i: NodeIndex): boolean {
    return this.escapes(i) && !this.escapes(this.view.containingElement(i));
  }

  /** How far a rectangle reaches past the edge, before clips; negative when it stays inside. */
  pastEdge(rect: Rect): number {
    return this.rtl ? -rect.x : rightOf(rect) - this.edge;
  }

  /** How far a rectangle's nearer edge is past the page's edge: not negative when all of it is outside. */
  startPastEdge(rect: Rect): number {
    return this.rtl ? -rightOf(rect) : rect.x - this.edge;
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
    return this.rtl ? -clip.left : clip.right - this.edge;
  }
}

/** The escapes of a render; every rule shares them. */
export const endEscapes = perSnapshot((view) => new EndEscapes(view));
