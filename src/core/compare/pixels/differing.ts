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
    ? compareShifted(a, b, shifts, least, mask)
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
  let count = 0;
  let [from, to] = [0, 0];
  for (let y = 0; y < height; y++) {
    const before = count;
    const rowA = y * a.width;
    const rowB = y * b.width;
    const isSame = areSame?.(
      a.bytes.subarray(4 * rowA, 4 * (rowA + width)),
      b.bytes.subarray(4 * rowB, 4 * (rowB + width)),
    );
    if (isSame === true) continue;
    for (let x = 0; x < width; x++) {
      if (a.words[rowA + x] === b.words[rowB + x]) continue;
      if (isOther(a, x, y, b, x, y, least)) {
        mask[rowB + x] = 1;
        count++;
      }
    }
    if (count === before) continue;
    if (before === 0) from = y;
    to = y + 1;
  }
  return { count, compared: width * height, from, to };
}

function compareShifted(
  a: Picture,
  b: Picture,
  { columns, rows, dx, dy, owner, ownerA, columnsA }: ShiftMap,
  least: number,
  mask: Uint8Array,
): Found {
  let count = 0;
  let compared = 0;
  let [from, to] = [0, 0];
  const isOtherAt = (x: number, y: number, cell: number) => {
    const fromX = x - dx[cell]!;
    const fromY = y - dy[cell]!;
    return dx[cell] === ALONE || isOther(a, fromX, fromY, b, x, y, least);
  };
  for (let y = 0; y < b.height; y++) {
    const before = count;
    const row = Math.floor(y / CELL);
    for (let x = 0; x < b.width; x++) {
      const column = Math.floor(x / CELL);
      const cell = row * columns + column;
      if (dx[cell] === ALONE) continue;
      const fromX = x - dx[cell]!;
      const fromY = y - dy[cell]!;
      const isThere = fromX >= 0 && fromY >= 0 && fromX < a.width && fromY < a.height;
      if (!isThere) continue;
      // Something else stood there: what is in its place now is the ground.
      if (ownerA[Math.floor(fromY / CELL) * columnsA + Math.floor(fromX / CELL)] !== owner[cell]) continue;
      compared++;
      if (a.words[fromY * a.width + fromX] === b.words[y * b.width + x]) continue;
      if (!isOther(a, fromX, fromY, b, x, y, least)) continue;
      // Cells are coarse: at an edge it may belong to what is beside it; or to what lies behind, which did not move.
      if (column > 0 && !isOtherAt(x, y, cell - 1)) continue;
      if (column + 1 < columns && !isOtherAt(x, y, cell + 1)) continue;
      if (row > 0 && !isOtherAt(x, y, cell - columns)) continue;
      if (row + 1 < rows && !isOtherAt(x, y, cell + columns)) continue;
      if (!isOther(a, x, y, b, x, y, least)) continue;
      mask[y * b.width + x] = 1;
      count++;
    }
    if (count === before) continue;
    if (before === 0) from = y;
    to = y + 1;
  }
  return { count, compared, from, to };
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
