import type { Rect } from '../geometry/rect.js';
import { inkWithin, lineHeightOf } from './text-ink.js';
import { rotationOf } from './rotation.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** A text line, or the box of an element. */
interface Piece {
  readonly node: NodeIndex;
  /** −1 for a box. */
  readonly line: number;
}

/** A rectangle that may be turned: its middle, half its sides, and how far it is turned clockwise, radians. */
interface Slab {
  readonly x: number;
  readonly y: number;
  readonly halfWidth: number;
  readonly halfHeight: number;
  readonly turn: number;
}

/** Turned by neither nothing nor a quarter: its upright box has empty corners. */
function isAskew(view: SnapshotView, i: NodeIndex): boolean {
  return Math.abs(Math.sin(2 * rotationOf(view, i))) > 1e-3;
}

/** Whether two pieces, one of which at least is askew, keep clear of one another though their upright boxes meet. */
export function areApart(view: SnapshotView, a: Piece, b: Piece, least: number): boolean {
  return (isAskew(view, a.node) || isAskew(view, b.node)) && depthOf(view, a, b) < least;
}

/** Turned by so nearly an eighth that the sides of its box do not follow from those of the upright one round it. */
export function isOfUnknownSides(view: SnapshotView, i: NodeIndex): boolean {
  return isAskew(view, i) && Math.abs(Math.cos(2 * rotationOf(view, i))) <= EIGHTH;
}

/**
 * How deep two turned pieces reach into one another, CSS px: the least way by which they would be apart, and negative where
 * they are. (The separating axis theorem for two rectangles.)
 */
function depthOf(view: SnapshotView, a: Piece, b: Piece): number {
  const [first, second] = [slabOf(view, a), slabOf(view, b)];
  const axes = [first, second].flatMap(({ turn }) => [turn, turn + Math.PI / 2]);
  return Math.min(
    ...axes.map((axis) => {
      const along = (first.x - second.x) * Math.cos(axis) + (first.y - second.y) * Math.sin(axis);
      return reach(first, axis) + reach(second, axis) - Math.abs(along);
    }),
  );
}

/** How far a slab reaches from its middle along an axis. */
function reach({ halfWidth, halfHeight, turn }: Slab, axis: number): number {
  return halfWidth * Math.abs(Math.cos(axis - turn)) + halfHeight * Math.abs(Math.sin(axis - turn));
}

function slabOf(view: SnapshotView, { node, line }: Piece): Slab {
  const box = line < 0 ? view.box(node) : view.lineBox(line);
  // Of what is skewed, the turn is not told.
  const turn = rotationOf(view, node) || 0;
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const [width, height] = sidesOf(box, turn, line < 0 ? null : lineHeightOf(view, line));
  if (line < 0) return { ...middle, halfWidth: width / 2, halfHeight: height / 2, turn };
  // Of a line, the letters: they lie above its baseline.
  const { top, bottom } = inkWithin(view, line, height);
  const down = (top + bottom - height) / 2;
  return {
    x: middle.x - down * Math.sin(turn),
    y: middle.y + down * Math.cos(turn),
    halfWidth: width / 2,
    halfHeight: (bottom - top) / 2,
    turn,
  };
}

/** So close to an eighth of a turn, the sides of a rectangle do not follow from those of the upright one round it. */
const EIGHTH = 0.25;

/** @param known the height, where it can't be told */
function sidesOf(
  { width, height }: Rect,
  turn: number,
  known: number | null,
): [width: number, height: number] {
  const [c, s] = [Math.abs(Math.cos(turn)), Math.abs(Math.sin(turn))];
  // A line's height is its font's; that of the upright box hangs on how long the line is, and small errors of it grow.
  if (known !== null && c > EIGHTH) return [Math.max(0, (width - known * s) / c), known];
  const det = c * c - s * s;
  if (Math.abs(det) > EIGHTH)
    return [Math.max(0, (width * c - height * s) / det), Math.max(0, (height * c - width * s) / det)];
  const side = (width + height) / (2 * (c + s));
  return known === null ? [side, side] : [Math.max(0, (height - known * c) / s), known];
}
