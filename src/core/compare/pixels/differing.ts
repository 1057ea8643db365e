import { rememberedDistance } from './colour.js';
import type { Picture } from './picture.js';
import { ALONE, CELL, type ShiftMap } from './shift-map.js';

/** From so far on two colours are seen to be others, ΔEOK: a little more than what can just be seen, for noise of encoders. */
export const LEAST_DISTANCE = 0.03;

export interface Differing {
  /** One byte a pixel of the second picture: 1 where it differs. */
  readonly mask: Uint8Array;
  readonly count: number;
  /** Pixels that were compared: what is in both. */
  readonly compared: number;
  /** The first row with a pixel that differs, and the one after the last; the same where none does. */
  readonly from: number;
  readonly to: number;
}

/** Whether two rows are the same, byte by byte: the machine is faster at it than any script. */
export type AreSame = (a: Uint8Array, b: Uint8Array) => boolean;

/**
 * Where the second picture looks otherwise than the first. A pixel counts when its colour lies outside of what the other picture has around
 * the same place, one px each way, in either direction: edges that are smoothed otherwise and letters that stand a part of a px elsewhere lie within.
 * @param shifts where what corresponds stands; null for the same place everywhere
 * @param least ΔEOK from which on colours differ
 * @param areSame a quick test for rows that are the same; without it they are gone through
 */
export function differingPixels(
  a: Picture,
  b: Picture,
  shifts: ShiftMap | null,
  least = LEAST_DISTANCE,
  areSame: AreSame | null = null,
): Differing {
  const mask = new Uint8Array(b.width * b.height);
  const found = shifts
    ? compareShifted(a, b, shifts, least, mask, areSame)
    : compareInPlace(a, b, least, mask, areSame);
  return { mask, ...found };
}

type Found = Omit<Differing, 'mask'>;

function compareInPlace(
  a: Picture,
  b: Picture,
  least: number,
  mask: Uint8Array,
  areSame: AreSame | null,
): Found {
  const width = Math.min(a.width, b.width);
  const height = Math.min(a.height, b.height);
  const rows = new Rows();
  let count = 0;
  for (let y = 0; y < height; y++) {
    const before = count;
    const rowA = y * a.width;
    const rowB = y * b.width;
    if (isSamePart(a, rowA, b, rowB, width, areSame)) continue;
    for (let x = 0; x < width; x++) {
      if (a.words[rowA + x] === b.words[rowB + x]) continue;
      if (isOther(a, x, y, b, x, y, least)) {
        mask[rowB + x] = 1;
        count++;
      }
    }
    if (count > before) rows.add(y);
  }
  return { count, compared: width * height, from: rows.from, to: rows.to };
}

/** The rows in which pixels differ, met from the top down. */
class Rows {
  from = 0;
  /** The one after the last. */
  to = 0;

  add(y: number): void {
    if (this.to === 0) this.from = y;
    this.to = y + 1;
  }
}

/** Whether so many pixels from two places on are known to be the same. */
function isSamePart(
  a: Picture,
  startA: number,
  b: Picture,
  startB: number,
  length: number,
  areSame: AreSame | null,
): boolean {
  return (
    areSame?.(
      a.bytes.subarray(4 * startA, 4 * (startA + length)),
      b.bytes.subarray(4 * startB, 4 * (startB + length)),
    ) ?? false
  );
}

function compareShifted(
  a: Picture,
  b: Picture,
  shifts: ShiftMap,
  least: number,
  mask: Uint8Array,
  areSame: AreSame | null,
): Found {
  const { columns, rows, dx, dy, owner, ownerA, columnsA } = shifts;
  const met = new Rows();
  let count = 0;
  let compared = 0;
  const isOtherAt = (x: number, y: number, cell: number) => {
    const fromX = x - dx[cell]!;
    const fromY = y - dy[cell]!;
    return dx[cell] === ALONE || isOther(a, fromX, fromY, b, x, y, least);
  };
  /** Whether what stood in its place was the same element: what is seen where another one was is the ground. */
  const isOwn = (cell: number, fromX: number, fromY: number) =>
    ownerA[Math.floor(fromY / CELL) * columnsA + Math.floor(fromX / CELL)] === owner[cell];
  const look = (x: number, y: number, cell: number, row: number) => {
    const column = cell - row * columns;
    const [fromX, fromY] = [x - dx[cell]!, y - dy[cell]!];
    if (a.words[fromY * a.width + fromX] === b.words[y * b.width + x]) return;
    if (!isOwn(cell, fromX, fromY) || !isOther(a, fromX, fromY, b, x, y, least)) return;
    // Cells are coarse: at an edge it may belong to what is beside it; or to what lies behind, which did not move.
    if (column > 0 && !isOtherAt(x, y, cell - 1)) return;
    if (column + 1 < columns && !isOtherAt(x, y, cell + 1)) return;
    if (row > 0 && !isOtherAt(x, y, cell - columns)) return;
    if (row + 1 < rows && !isOtherAt(x, y, cell + columns)) return;
    if (!isOther(a, x, y, b, x, y, least)) return;
    mask[y * b.width + x] = 1;
    count++;
  };
  let runs: Run[] = [];
  for (let y = 0; y < b.height; y++) {
    const before = count;
    const row = Math.floor(y / CELL);
    if (y % CELL === 0) runs = runsIn(shifts, row, a.width, b.width);
    for (const run of runs) {
      const { left, right } = run;
      const fromY = y - run.dy;
      if (fromY < 0 || fromY >= a.height) continue;
      const rowA = Math.floor(fromY / CELL);
      if (run.rowA !== rowA) {
        run.rowA = rowA;
        run.own = ownIn(shifts, row, run, rowA);
      }
      compared += run.own;
      const startA = fromY * a.width + left - run.dx;
      if (isSamePart(a, startA, b, y * b.width + left, right - left, areSame)) continue;
      for (let x = left; x < right; x++) look(x, y, row * columns + Math.floor(x / CELL), row);
    }
    if (count > before) met.add(y);
  }
  return { count, compared, from: met.from, to: met.to };
}

/** Cells of a row that moved together, as far as they are in both pictures from side to side. */
interface Run {
  /** Picture px. */
  readonly left: number;
  readonly right: number;
  readonly dx: number;
  readonly dy: number;
  /** The row of cells behind it that was counted last, and how many of its pixels were: the rows of a cell have mostly the same behind them. */
  rowA: number;
  own: number;
}

function runsIn({ columns, dx, dy }: ShiftMap, row: number, widthA: number, widthB: number): Run[] {
  const runs: Run[] = [];
  const begin = row * columns;
  for (let cell = begin; cell < begin + columns;) {
    const first = cell;
    const [byX, byY] = [dx[first]!, dy[first]!];
    while (cell < begin + columns && dx[cell] === byX && dy[cell] === byY) cell++;
    if (byX === ALONE) continue;
    const left = Math.max((first - begin) * CELL, byX);
    const right = Math.min((cell - begin) * CELL, widthB, widthA + byX);
    if (right > left) runs.push({ left, right, dx: byX, dy: byY, rowA: -1, own: 0 });
  }
  return runs;
}

/** How many pixels of a part of a row show what they showed where they stood: the same element. @param rowA the row of cells there */
function ownIn(
  { columns, owner, ownerA, columnsA }: ShiftMap,
  row: number,
  { left, right, dx }: Run,
  rowA: number,
): number {
  let count = 0;
  let at = row * columns + Math.floor(left / CELL);
  let atA = rowA * columnsA + Math.floor((left - dx) / CELL);
  // What is left of the two cells.
  let rest = CELL - (left % CELL);
  let restA = CELL - ((left - dx) % CELL);
  for (let x = left; x < right;) {
    const step = Math.min(rest, restA, right - x);
    if (owner[at] === ownerA[atA]) count += step;
    x += step;
    if ((rest -= step) === 0) {
      at++;
      rest = CELL;
    }
    if ((restA -= step) === 0) {
      atA++;
      restA = CELL;
    }
  }
  return count;
}

/** Whether a pixel lies outside of what the other picture has around it, either way. */
function isOther(
  a: Picture,
  ax: number,
  ay: number,
  b: Picture,
  bx: number,
  by: number,
  least: number,
): boolean {
  if (ax < 0 || ay < 0 || ax >= a.width || ay >= a.height) return true;
  return isOutside(a, ax, ay, b, bx, by, least) || isOutside(b, bx, by, a, ax, ay, least);
}

const distanceOf = rememberedDistance();

/** Written without lists and objects: it is asked for every pixel that is not the same. */
function isOutside(
  a: Picture,
  ax: number,
  ay: number,
  b: Picture,
  bx: number,
  by: number,
  least: number,
): boolean {
  const word = a.words[ay * a.width + ax]!;
  const { words, bytes, width, height } = b;
  const top = by > 0 ? by - 1 : 0;
  const bottom = by + 1 < height ? by + 1 : by;
  const left = bx > 0 ? bx - 1 : 0;
  const right = bx + 1 < width ? bx + 1 : bx;
  for (let y = top; y <= bottom; y++) {
    const end = y * width + right;
    for (let other = y * width + left; other <= end; other++) if (words[other] === word) return false;
  }
  const at = 4 * (ay * a.width + ax);
  const r = a.bytes[at]!;
  const g = a.bytes[at + 1]!;
  const blue = a.bytes[at + 2]!;
  let lowR = 255;
  let lowG = 255;
  let lowB = 255;
  let highR = 0;
  let highG = 0;
  let highB = 0;
  for (let y = top; y <= bottom; y++) {
    const end = 4 * (y * width + right);
    for (let other = 4 * (y * width + left); other <= end; other += 4) {
      const otherR = bytes[other]!;
      const otherG = bytes[other + 1]!;
      const otherB = bytes[other + 2]!;
      if (otherR < lowR) lowR = otherR;
      if (otherR > highR) highR = otherR;
      if (otherG < lowG) lowG = otherG;
      if (otherG > highG) highG = otherG;
      if (otherB < lowB) lowB = otherB;
      if (otherB > highB) highB = otherB;
    }
  }
  const nearR = r < lowR ? lowR : r > highR ? highR : r;
  const nearG = g < lowG ? lowG : g > highG ? highG : g;
  const nearB = blue < lowB ? lowB : blue > highB ? highB : blue;
  if (nearR === r && nearG === g && nearB === blue) return false;
  return distanceOf(r | (g << 8) | (blue << 16), nearR | (nearG << 8) | (nearB << 16)) >= least;
}
