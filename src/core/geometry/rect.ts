/** An axis-parallel rectangle in CSS px, from the page's top left corner; `width` and `height` are not negative. */
export interface Rect {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export function rightOf(rect: Rect): number {
  return rect.x + rect.width;
}

export function bottomOf(rect: Rect): number {
  return rect.y + rect.height;
}

/** In square CSS px. */
export function area(rect: Rect): number {
  return rect.width * rect.height;
}

/** The common part of two rectangles, or null when they share no area. */
export function intersect(a: Rect, b: Rect): Rect | null {
  const x = Math.max(a.x, b.x);
  const y = Math.max(a.y, b.y);
  const width = Math.min(rightOf(a), rightOf(b)) - x;
  const height = Math.min(bottomOf(a), bottomOf(b)) - y;
  return width > 0 && height > 0 ? { x, y, width, height } : null;
}

/** Whether two rectangles share more than `least` CSS px in both directions. */
export function meets(a: Rect, b: Rect, least: number): boolean {
  const common = intersect(a, b);
  return common !== null && common.width > least && common.height > least;
}

/** How far a rectangle reaches out of another on each side, CSS px; negative where it stays inside. */
export function outOf(
  inner: Rect,
  outer: Rect,
): { left: number; right: number; top: number; bottom: number } {
  return {
    left: outer.x - inner.x,
    right: rightOf(inner) - rightOf(outer),
    top: outer.y - inner.y,
    bottom: bottomOf(inner) - bottomOf(outer),
  };
}

/** Whether a rectangle stays inside of another, or reaches out of it by so little, CSS px. */
export function liesWithin(inner: Rect, outer: Rect, slack: number): boolean {
  return (
    outer.x - inner.x <= slack &&
    outer.y - inner.y <= slack &&
    rightOf(inner) - rightOf(outer) <= slack &&
    bottomOf(inner) - bottomOf(outer) <= slack
  );
}

/** The side of an axis at which a rectangle reaches out of another the farther. */
export function sideOut(inner: Rect, outer: Rect, axis: 'x' | 'y'): 'left' | 'right' | 'top' | 'bottom' {
  const { left, right, top, bottom } = outOf(inner, outer);
  if (axis === 'x') return left > right ? 'left' : 'right';
  return top > bottom ? 'top' : 'bottom';
}

/** Along one axis, the farther of the two sides. */
export function outAlong(inner: Rect, outer: Rect, axis: 'x' | 'y'): number {
  const { left, right, top, bottom } = outOf(inner, outer);
  return axis === 'x' ? Math.max(left, right) : Math.max(top, bottom);
}

/** The extent of a rectangle along an axis. */
export function sizeAlong(rect: Rect, axis: 'x' | 'y'): number {
  return axis === 'x' ? rect.width : rect.height;
}

/** The smallest rectangle that holds both. */
export function union(a: Rect, b: Rect): Rect {
  const x = Math.min(a.x, b.x);
  const y = Math.min(a.y, b.y);
  return {
    x,
    y,
    width: Math.max(rightOf(a), rightOf(b)) - x,
    height: Math.max(bottomOf(a), bottomOf(b)) - y,
  };
}

/** The same rectangle with every number rounded to hundredths, as it is written to a run. */
export function rounded(rect: Rect): Rect {
  const round = (value: number) => Math.round(value * 100) / 100;
  return { x: round(rect.x), y: round(rect.y), width: round(rect.width), height: round(rect.height) };
}

/** A rectangle that reaches farther on every side. */
export function grown({ x, y, width, height }: Rect, by: number): Rect {
  return { x: x - by, y: y - by, width: width + 2 * by, height: height + 2 * by };
}
