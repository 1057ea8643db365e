import type { Rect } from '../geometry/rect.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** The elements whose boxes hold an element for layout, from itself outwards. */
export function* holders(view: SnapshotView, i: NodeIndex): Generator<NodeIndex> {
  for (let at = i; at >= 0; at = view.containingElement(at)) yield at;
}

/** How far a rectangle reaches out of another on each side, CSS px; negative where it stays inside. */
export function outOf(
  inner: Rect,
  outer: Rect,
): { left: number; right: number; top: number; bottom: number } {
  return {
    left: outer.x - inner.x,
    right: inner.x + inner.width - (outer.x + outer.width),
    top: outer.y - inner.y,
    bottom: inner.y + inner.height - (outer.y + outer.height),
  };
}

/** Along one axis, the farther of the two sides. */
export function outAlong(inner: Rect, outer: Rect, axis: 'x' | 'y'): number {
  const { left, right, top, bottom } = outOf(inner, outer);
  return axis === 'x' ? Math.max(left, right) : Math.max(top, bottom);
}

/** Whether an element's size along the block axis is its own declaration and not its content's. */
export function hasFixedHeight(view: SnapshotView, i: NodeIndex): boolean {
  const isSet = (value: string) =>
    value !== '' && value !== 'auto' && value !== 'none' && !/content/.test(value);
  return isSet(view.style(i, 'height')) || isSet(view.style(i, 'max-height'));
}
