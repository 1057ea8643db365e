import type { Clip } from '../geometry/clip.js';
import type { Rect } from '../geometry/rect.js';
import { clipsAxis, isScrollingFrame } from './clip.js';
import { clipPathInset, legacyClip, type Insets } from '../css/clip-values.js';
import { isOutOfFlow } from './displace.js';
import { beginsAtFarEnd } from './scroll-origin.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** An element that cuts off, and the edges at which it does. */
export interface Cutter {
  readonly node: NodeIndex;
  readonly clip: Clip;
}

const NO_CLIP: Clip = { left: -Infinity, top: -Infinity, right: Infinity, bottom: Infinity };

/**
 * What is cut off of every element, along its chain of containing boxes (CSS Overflow 3, CSS Masking 1, CSS Contain 2).
 * `shown` counts every clip, as the page stands; `lost` only those that no scrolling by the user gets past: a clip outside
 * of a scroll container cuts the container, not what is scrolled in it.
 */
export class Clips {
  private readonly shownIn: Clip[] = [];
  private readonly lostIn: Clip[] = [];
  private readonly cutterX: Int32Array;
  private readonly cutterY: Int32Array;

  constructor(private readonly view: SnapshotView) {
    this.cutterX = new Int32Array(view.count);
    this.cutterY = new Int32Array(view.count);
    for (let i = 0; i < view.count; i++) {
      const around = view.containingElement(i);
      let shown = this.shownContent(around);
      let lost = this.lostContent(around);
      this.cutterX[i] = this.cutter(around, 'x');
      this.cutterY[i] = this.cutter(around, 'y');
      const own = ownClip(view, i);
      if (own) {
        shown = meet(shown, own);
        lost = meet(lost, own);
        this.cutterX[i] = this.cutterY[i] = i;
      }
      const inner = contentClip(view, i);
      if (inner) {
        shown = meet(shown, inner.clip);
        const outer = beyondScrolling(view, i, lost, inner.clip);
        lost = {
          left: inner.scrollsX ? outer.left : Math.max(lost.left, inner.clip.left),
          right: inner.scrollsX ? outer.right : Math.min(lost.right, inner.clip.right),
          top: inner.scrollsY ? outer.top : Math.max(lost.top, inner.clip.top),
          bottom: inner.scrollsY ? outer.bottom : Math.min(lost.bottom, inner.clip.bottom),
        };
        const freeX = inner.scrollsX && outer.left === -Infinity && outer.right === Infinity;
        const freeY = inner.scrollsY && outer.top === -Infinity && outer.bottom === Infinity;
        if (freeX) this.cutterX[i] = -1;
        else if (inner.clip.left > -Infinity && !inner.scrollsX) this.cutterX[i] = i;
        if (freeY) this.cutterY[i] = -1;
        else if (inner.clip.top > -Infinity && !inner.scrollsY) this.cutterY[i] = i;
      }
      this.shownIn.push(shown);
      this.lostIn.push(lost);
    }
  }

  /** What the content of an element (its text, its children) is under, as the page stands. */
  shownContent(i: NodeIndex): Clip {
    return i < 0 ? NO_CLIP : this.shownIn[i]!;
  }

  /** The same, of the clips that no scrolling gets past. */
  lostContent(i: NodeIndex): Clip {
    return i < 0 ? NO_CLIP : this.lostIn[i]!;
  }

  /** What an element's own box is under, as the page stands. */
  shownBox(i: NodeIndex): Clip {
    return this.boxClip(this.shownContent(this.view.containingElement(i)), i);
  }

  lostBox(i: NodeIndex): Clip {
    return this.boxClip(this.lostContent(this.view.containingElement(i)), i);
  }

  private boxClip(around: Clip, i: NodeIndex): Clip {
    const own = ownClip(this.view, i);
    return own ? meet(around, own) : around;
  }

  /** The elements that cut an element's content off along an axis for good, the nearest first. */
  *cuttersOfContent(i: NodeIndex, axis: 'x' | 'y'): Generator<Cutter> {
    for (let at = this.cutter(i, axis); at >= 0; at = this.cutter(this.view.containingElement(at), axis)) {
      const own = ownClip(this.view, at);
      const inner = contentClip(this.view, at);
      const clip = own && inner ? meet(own, inner.clip) : (own ?? inner?.clip);
      if (clip) yield { node: at, clip };
    }
  }

  /** The same of its own box: first the clip that it puts on itself. */
  *cuttersOfBox(i: NodeIndex, axis: 'x' | 'y'): Generator<Cutter> {
    const own = ownClip(this.view, i);
    if (own) yield { node: i, clip: own };
    yield* this.cuttersOfContent(this.view.containingElement(i), axis);
  }

  /** The nearest element that cuts an element's content off along an axis for good; −1 when none does. */
  private cutter(i: NodeIndex, axis: 'x' | 'y'): NodeIndex {
    return i < 0 ? -1 : (axis === 'x' ? this.cutterX : this.cutterY)[i]!;
  }
}

/** The part of a rectangle inside a clip; null when nothing of it is. */
export function cut(rect: Rect, clip: Clip): Rect | null {
  const isInside =
    rect.x >= clip.left &&
    rect.y >= clip.top &&
    rect.x + rect.width <= clip.right &&
    rect.y + rect.height <= clip.bottom;
  if (isInside) return rect.width > 0 && rect.height > 0 ? rect : null;
  const x = Math.max(rect.x, clip.left);
  const y = Math.max(rect.y, clip.top);
  const width = Math.min(rect.x + rect.width, clip.right) - x;
  const height = Math.min(rect.y + rect.height, clip.bottom) - y;
  return width > 0 && height > 0 ? { x, y, width, height } : null;
}

function meet(a: Clip, b: Clip): Clip {
  return {
    left: Math.max(a.left, b.left),
    top: Math.max(a.top, b.top),
    right: Math.min(a.right, b.right),
    bottom: Math.min(a.bottom, b.bottom),
  };
}

/**
 * What an outer clip takes for good of what is scrolled in a container. Where it cuts off an end of the container itself,
 * what comes to stand there at the end of the scrolling can't be brought out; else everything can.
 * @param port what the container shows
 */
function beyondScrolling(view: SnapshotView, i: NodeIndex, outer: Clip, port: Clip): Clip {
  const [width, height, scrollWidth, scrollHeight] = view.scrollSizes(i);
  const at = view.scrolledBy(i);
  const most = { x: Math.max(0, scrollWidth - width), y: Math.max(0, scrollHeight - height) };
  const isFar = beginsAtFarEnd(view, i);
  const before = { x: isFar.x ? most.x + at.x : at.x, y: isFar.y ? most.y + at.y : at.y };
  const isCut = (outside: number) => width > 0 && outside > 1;
  return {
    left: isCut(outer.left - port.left) ? outer.left - before.x : -Infinity,
    right: isCut(port.right - outer.right) ? outer.right + most.x - before.x : Infinity,
    top: isCut(outer.top - port.top) ? outer.top - before.y : -Infinity,
    bottom: isCut(port.bottom - outer.bottom) ? outer.bottom + most.y - before.y : Infinity,
  };
}

/** The clip that an element puts on itself: `clip-path` insets, and `clip` where it is absolutely positioned. */
function ownClip(view: SnapshotView, i: NodeIndex): Clip | null {
  const path = view.style(i, 'clip-path');
  const legacy = view.style(i, 'clip');
  if ((path === 'none' || path === '') && (legacy === 'auto' || legacy === '')) return null;
  const box = view.box(i);
  const inset = clipPathInset(path, box);
  let clip: Clip | null = inset ? within(box, inset) : null;
  if (isOutOfFlow(view, i)) {
    const rect = legacyClip(legacy, box);
    if (rect) clip = clip ? meet(clip, rect) : rect;
  }
  return clip;
}

function within(box: Rect, inset: Insets): Clip {
  return {
    left: box.x + inset.left,
    top: box.y + inset.top,
    right: box.x + box.width - inset.right,
    bottom: box.y + box.height - inset.bottom,
  };
}

interface ContentClip {
  readonly clip: Clip;
  readonly scrollsX: boolean;
  readonly scrollsY: boolean;
}

function contentClip(view: SnapshotView, i: NodeIndex): ContentClip | null {
  const x = clipsAxis(view, i, 'x');
  const y = clipsAxis(view, i, 'y');
  if (!x && !y) return view.tag(i) === 'select' ? choiceClip(view, i) : null;
  const box = view.paddingBox(i);
  const overflowX = view.style(i, 'overflow-x');
  const overflowY = view.style(i, 'overflow-y');
  const isScroller = isScrollingFrame(view, i);
  const margin = Number.parseFloat(/([\d.]+)px/.exec(view.style(i, 'overflow-clip-margin'))?.[1] ?? '0');
  const marginX = overflowX === 'clip' ? margin : 0;
  const marginY = overflowY === 'clip' ? margin : 0;
  return {
    clip: {
      left: x ? box.x - marginX : -Infinity,
      right: x ? box.x + box.width + marginX : Infinity,
      top: y ? box.y - marginY : -Infinity,
      bottom: y ? box.y + box.height + marginY : Infinity,
    },
    scrollsX: isScroller || /auto|scroll/.test(overflowX),
    scrollsY: isScroller || /auto|scroll/.test(overflowY),
  };
}

/** The chosen words of a list that drops down are cut off at its content box (as Chromium draws it; they begin at its top). */
function choiceClip(view: SnapshotView, i: NodeIndex): ContentClip {
  const { y, height } = view.contentBox(i);
  return { clip: { ...NO_CLIP, top: y, bottom: y + height }, scrollsX: false, scrollsY: false };
}
