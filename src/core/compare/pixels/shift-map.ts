import { grown, type Rect } from '../../geometry/rect.js';
import type { NodeIndex } from '../../layout/view.js';
import type { Pairing } from '../pairing.js';
import { below, type Side } from '../side.js';

/** Picture px of a cell's side. */
export const CELL = 4;
/** Of what is in one picture only: compared with nothing. */
export const ALONE = 0x7fff;

/**
 * Where each part of a picture stands in the other one. Cells are `CELL` picture px wide and high, row by row; a pixel at x, y of the second picture is that
 * at x − dx, y − dy of the first.
 */
export interface ShiftMap {
  readonly columns: number;
  readonly rows: number;
  /** Picture px; `ALONE` where nothing corresponds. */
  readonly dx: Int16Array;
  readonly dy: Int16Array;
  /** Of each cell, the row in the first layout of the innermost element there; −1 for none. */
  readonly owner: Int32Array;
  /** Cells of the first picture: the row of the innermost element there. What one element moved away from, another one's ground is seen at. */
  readonly ownerA: Int32Array;
  readonly columnsA: number;
}

/** How a picture shows a page. */
export interface Shown {
  /** Picture px. */
  readonly width: number;
  readonly height: number;
  /** Picture px for a CSS px. */
  readonly scale: number;
  /** Of the page, what its top left shows, CSS px. */
  readonly x: number;
  readonly y: number;
}

/**
 * Where the elements of two layouts stand in their pictures: what is in one element moves with it. Null where all stand where they stood, which is the
 * fast way. @param b how the second picture shows its page
 */
export function shiftMapOf({ a, b, toA }: Pairing, from: Shown, to: Shown): ShiftMap | null {
  const moves = new Map<NodeIndex, readonly [dx: number, dy: number]>();
  let isStill = true;
  for (const j of b.rows) {
    if (!b.isShown[j]) continue;
    const move = moveOf({ a, b, toA }, j, from, to);
    if (!move) continue;
    moves.set(j, move);
    if (move[0] !== 0 || move[1] !== 0) isStill = false;
  }
  if (isStill) return null;
  const [columns, rows] = [Math.ceil(to.width / CELL), Math.ceil(to.height / CELL)];
  const cells = columns * rows;
  const [dx, dy, owner] = [new Int16Array(cells), new Int16Array(cells), new Int32Array(cells).fill(-1)];
  // Nothing is painted over by what holds it, which stands before it.
  for (const [j, move] of moves) {
    // What is new takes every cell that it reaches into.
    const rect = move[0] === ALONE ? grown(b.view.box(j), CELL / 2 / to.scale) : b.view.box(j);
    overCells(rect, to, columns, rows, (start, end) => {
      dx.fill(move[0], start, end);
      dy.fill(move[1], start, end);
      owner.fill(toA[j]!, start, end);
    });
  }
  const columnsA = Math.ceil(from.width / CELL);
  const rowsA = Math.ceil(from.height / CELL);
  const ownerA = new Int32Array(columnsA * rowsA).fill(-1);
  for (const i of a.rows)
    if (a.isShown[i])
      overCells(a.view.box(i), from, columnsA, rowsA, (start, end) => ownerA.fill(i, start, end));
  return { columns, rows, dx, dy, owner, ownerA, columnsA };
}

/** How an element moved from one picture to the other; null for what says nothing, as new elements round old ones. */
function moveOf(
  { a, b, toA }: Pick<Pairing, 'a' | 'b' | 'toA'>,
  j: NodeIndex,
  from: Shown,
  to: Shown,
): readonly [number, number] | null {
  const i = toA[j]!;
  if (i < 0) return isAlone(b, j, toA) ? [ALONE, ALONE] : null;
  if (!a.isShown[i]) return [ALONE, ALONE];
  const [was, is] = [a.view.box(i), b.view.box(j)];
  return [
    Math.round((is.x - to.x) * to.scale - (was.x - from.x) * from.scale),
    Math.round((is.y - to.y) * to.scale - (was.y - from.y) * from.scale),
  ];
}

/** Calls for each row of cells that a rectangle of the page takes, with the first and the one after the last. */
function overCells(
  rect: Rect,
  { x, y, scale }: Shown,
  columns: number,
  rows: number,
  fill: (start: number, end: number) => void,
): void {
  const left = clamp(Math.round(((rect.x - x) * scale) / CELL), columns);
  const right = clamp(Math.round(((rect.x + rect.width - x) * scale) / CELL), columns);
  const top = clamp(Math.round(((rect.y - y) * scale) / CELL), rows);
  const bottom = clamp(Math.round(((rect.y + rect.height - y) * scale) / CELL), rows);
  for (let row = top; row < bottom; row++) fill(row * columns + left, row * columns + right);
}

/** New with all that is in it. */
function isAlone(b: Side, j: NodeIndex, toA: Int32Array): boolean {
  return [...below(b, j)].every((at) => toA[at]! < 0);
}

function clamp(value: number, most: number): number {
  return Math.min(most, Math.max(0, value));
}
