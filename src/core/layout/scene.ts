import { area, intersect, type Rect } from '../geometry/rect.js';
import { RectIndex } from '../geometry/rect-index.js';
import type { Clip } from '../geometry/clip.js';
import { Clips, cut } from './clips.js';
import { areFainter } from './letters.js';
import { perSnapshot } from './memo.js';
import { outlinesOf, type Outline } from './outlines.js';
import { isInline } from './displays.js';
import { hidesWords } from './see-through.js';
import { isMadeOfBorders, isOpaque, shadowsOf } from './paint.js';
import { paintedOf } from './painted.js';
import { PaintOrder } from './paint-order.js';
import { nearestScrollerOf } from './scrollers.js';
import { FLAG_CONTROL, FLAG_PICTURE, FLAG_REPLACED } from './snapshot.js';
import { inkOf } from './text-ink.js';
import { isFixed, screenOnPage } from './viewport-layer.js';
import type { NodeIndex, SnapshotView } from './view.js';

export type InkKind = 'text' | 'control' | 'picture';

/** Something that a reader sees or uses: a line of text, a control, a picture. */
export interface Ink {
  /** Its place in `Scene.inks`. */
  readonly index: number;
  readonly kind: InkKind;
  readonly node: NodeIndex;
  /** The text line; −1 for controls and pictures. */
  readonly line: number;
  /** All of it, CSS px from the page's top left. */
  readonly full: Rect;
  /** What is left of it after every clip; null when nothing is. */
  readonly shown: Rect | null;
  readonly rank: number;
}

/** An opaque box, a shape of borders, or a ground through which no words can be read: what is under it is not seen. */
export interface Cover {
  readonly node: NodeIndex;
  readonly rect: Rect;
  readonly rank: number;
  /** The scroll position at which it is there, CSS px, where that is not the snapshot's. */
  readonly scrolled?: number;
}

/** What is seen thinner than this in either direction is not seen, CSS px: clipped-away text is often left 1 px. */
const LEAST = 1.5;

/** A laid-out page as it is seen: what is painted, where, over what. Computed once a render, on first use. */
export class Scene {
  readonly clips: Clips;
  readonly order: PaintOrder;
  /** By element: painted at all (rendered, visible, not transparent). */
  readonly painted: Uint8Array;
  /** By element: the product of its own and its ancestors' opacity. */
  readonly opacity: Float64Array;
  readonly inks: readonly Ink[];
  readonly covers: readonly Cover[];
  private outlines: (readonly Outline[])[] | null = null;
  private inkIndex: RectIndex | null = null;
  private coverIndex: RectIndex | null = null;
  /** The last descendant of every element in the snapshot's order; an element without any is its own. */
  private readonly last: Int32Array;

  constructor(readonly view: SnapshotView) {
    this.clips = new Clips(view);
    this.order = new PaintOrder(view);
    ({ painted: this.painted, opacity: this.opacity } = paintedOf(view));
    this.last = new Int32Array(view.count);
    for (let i = 0; i < view.count; i++) this.last[i] = i;
    for (let i = view.count - 1; i > 0; i--) {
      const parent = view.parent(i);
      if (parent >= 0) this.last[parent] = Math.max(this.last[parent]!, this.last[i]!);
    }
    this.inks = this.collectInks();
    this.covers = this.collectCovers();
  }

  /** Whether `inner` is `outer` or stands somewhere inside it. */
  contains(outer: NodeIndex, inner: NodeIndex): boolean {
    return outer >= 0 && inner >= outer && inner <= this.last[outer]!;
  }

  /** The elements of a subtree are those from `i` to here. */
  lastOf(i: NodeIndex): NodeIndex {
    return this.last[i]!;
  }

  /** The shapes that cut into an element's content. */
  outlinesAround(i: NodeIndex): readonly Outline[] {
    this.outlines ??= outlinesOf(this.view);
    return this.outlines[i]!;
  }

  /** Inks whose shown part meets a rectangle. */
  inksIn(rect: Rect): Ink[] {
    return this.placesIn(rect).map((i) => this.inks[i]!);
  }

  private placesIn(rect: Rect): number[] {
    this.inkIndex ??= new RectIndex(this.inks.map((ink) => ink.shown));
    return this.inkIndex.search(rect);
  }

  /**
   * Texts that meet one, or come as close above or below it, and stand after it in the page's order: each pair is then met
   * once.
   * @param close CSS px
   */
  textsAfter(ink: Ink, close: number): Ink[] {
    const { x, y, width, height } = ink.shown!;
    const around = { x, y: y - close, width, height: height + 2 * close };
    const found: Ink[] = [];
    for (const at of this.placesIn(around)) {
      const other = this.inks[at]!;
      if (at > ink.index && other.kind === 'text') found.push(other);
    }
    return found;
  }

  /** Every ink with what lies over it, in the page's order. */
  coveredInks(): { readonly ink: Ink; readonly cover: Cover }[] {
    const found: { readonly ink: Ink; readonly cover: Cover }[] = [];
    for (const cover of this.covers) {
      for (const at of this.placesIn(cover.rect)) {
        const ink = this.inks[at]!;
        if (cover.rank > ink.rank) found.push({ ink, cover });
      }
    }
    return found.sort((a, b) => a.ink.index - b.ink.index);
  }

  /** Inks of what stands in a control or a picture, in the page's order. */
  inksWithin(ink: Ink): Ink[] {
    const found: Ink[] = [];
    for (let at = ink.index + 1; at < this.inks.length && this.contains(ink.node, this.inks[at]!.node); at++)
      found.push(this.inks[at]!);
    return found;
  }

  coversIn(rect: Rect): Cover[] {
    this.coverIndex ??= new RectIndex(this.covers.map((cover) => cover.rect));
    return this.coverIndex.search(rect).map((i) => this.covers[i]!);
  }

  /**
   * Whether anything of a rectangle lies where the page can be scrolled to: above it and before its start nothing does, nor beyond
   * the screen where an element is fixed to that.
   */
  isOnPage(rect: Rect, of: NodeIndex): boolean {
    return this.onPage(rect, of) !== null;
  }

  /** What of a rectangle does; null where nothing does. */
  onPage(rect: Rect, of: NodeIndex): Rect | null {
    const reached = this.reached(rect);
    return reached && this.isOnItsScreen(reached, of) ? reached : null;
  }

  /** Of what is fixed to the screen, whether a rectangle is not beyond that. */
  private isOnItsScreen(rect: Rect, of: NodeIndex): boolean {
    if (!isFixed(this.view, of)) return true;
    // What scrolls in it can be scrolled to.
    const holder = nearestScrollerOf(this.view, of);
    const seen = holder >= 0 ? this.view.box(holder) : rect;
    return intersect(seen, screenOnPage(this.view)) !== null;
  }

  /** What of a rectangle lies where the page can be scrolled to (CSS Overflow 3, section 3.2); null where nothing does. */
  private reached(rect: Rect): Rect | null {
    const { direction, viewport } = this.view.snapshot;
    const rtl = direction === 'rtl';
    // Nearly everything on a page is on the page.
    if (!rtl && rect.x >= 0 && rect.y >= 0 && rect.width > 0 && rect.height > 0) return rect;
    const left = rtl ? rect.x : Math.max(0, rect.x);
    const right = rtl ? Math.min(viewport.width, rect.x + rect.width) : rect.x + rect.width;
    const y = Math.max(0, rect.y);
    const found = { x: left, y, width: right - left, height: rect.y + rect.height - y };
    return found.width > 0 && found.height > 0 ? found : null;
  }

  /** Whether a rectangle lies wholly past the edge at which a page that does not scroll sideways ends. */
  private isPastPage({ x, width }: Rect): boolean {
    const { rootOverflow, viewport, direction } = this.view.snapshot;
    if (!/hidden|clip/.test(rootOverflow.x)) return false;
    return direction === 'rtl' ? x + width <= 0 : x >= viewport.width;
  }

  /** What of a box of an element is seen where the page can be scrolled to; null where nothing is. */
  shownOf(i: NodeIndex, box: Rect): Rect | null {
    const shown = this.seen(box, this.clips.shownBox(i));
    return shown && this.reached(shown);
  }

  /** What is left of a rectangle under a clip, where that is anything to see. */
  private seen(rect: Rect, clip: Clip): Rect | null {
    const left = cut(rect, clip);
    return left && left.width >= LEAST && left.height >= LEAST && !this.isPastPage(left) ? left : null;
  }

  private collectInks(): Ink[] {
    const { view, clips, order } = this;
    const inks: Ink[] = [];
    for (let i = 0; i < view.count; i++) {
      if (!this.painted[i]) continue;
      const isControl = view.has(i, FLAG_CONTROL);
      // A link in running text is its words; the box round all its lines holds other words too.
      const isBox = isControl ? !isInline(view, i) : view.has(i, FLAG_PICTURE | FLAG_REPLACED);
      if (isBox) {
        const full = view.box(i);
        if (full.width < LEAST || full.height < LEAST) continue;
        const shown = this.seen(full, clips.shownBox(i));
        inks.push({
          index: inks.length,
          kind: isControl ? 'control' : 'picture',
          node: i,
          line: -1,
          full,
          shown,
          rank: order.box[i]!,
        });
      }
      const lines = view.linesOf(i);
      if (lines.length === 0 || areFainter(view, i, CLEAR)) continue;
      const clip = clips.shownContent(i);
      for (const line of lines) {
        const full = inkOf(view, line);
        const shown = this.seen(full, clip);
        inks.push({ index: inks.length, kind: 'text', node: i, line, full, shown, rank: order.text[i]! });
      }
    }
    return inks;
  }

  private collectCovers(): Cover[] {
    const { view, order } = this;
    const covers: Cover[] = [];
    for (let i = 1; i < view.count; i++) {
      if (!this.painted[i]) continue;
      const add = (box: Rect) => {
        const rect = this.shownOf(i, box);
        if (rect && area(rect) >= 16 && this.isOnItsScreen(rect, i))
          covers.push({ node: i, rect, rank: order.box[i]! });
      };
      const isSolid = this.opacity[i]! >= 0.9;
      if (isSolid) for (const shadow of shadowsOf(view, i)) add(shadow);
      const isShape = isSolid && (isOpaque(view, i) || isMadeOfBorders(view, i));
      if (isShape || hidesWords(view, i, this.opacity[i]!)) for (const box of view.fragmentsOf(i)) add(box);
    }
    return covers;
  }
}

/** Letters so faint are there for something else: a field over a picture of its own. */
const CLEAR = 0.1;

/** The scene of a render; every rule shares it. */
export const sceneOf = perSnapshot((view) => new Scene(view));
