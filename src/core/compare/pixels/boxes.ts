/** A part of a picture, picture px. */
export interface PixelBox {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** Pixels in it that differ. */
  readonly count: number;
}

/** Differing pixels that lie so near belong together: a word is one thing, not its letters. Picture px. */
const TILE = 16;
/** Fewer differing pixels in a tile are noise. */
const LEAST_IN_TILE = 3;
/** A box of fewer is noise of another kind: an edge that fell on another part of a px. */
const LEAST_IN_BOX = 10;
/** More boxes than these are put together, the nearest first. */
const MOST_BOXES = 24;

/**
 * Differing pixels as few boxes, from the top down.
 * @param mask one byte a pixel
 * @param from the first row to look at, and the one after the last: there are none elsewhere
 */
export function boxesIn(mask: Uint8Array, width: number, height: number, from = 0, to = height): PixelBox[] {
  const columns = Math.ceil(width / TILE);
  const rows = Math.ceil(height / TILE);
  const tiles = new Uint16Array(columns * rows);
  const looked = mask.subarray(0, to * width);
  for (let at = looked.indexOf(1, from * width); at >= 0; at = looked.indexOf(1, at + 1)) {
    const y = Math.floor(at / width);
    tiles[Math.floor(y / TILE) * columns + Math.floor((at - y * width) / TILE)]!++;
  }
  const found: PixelBox[] = [];
  const waiting: number[] = [];
  const isTaken = new Uint8Array(tiles.length);
  for (let first = 0; first < tiles.length; first++) {
    if (isTaken[first] || tiles[first]! < LEAST_IN_TILE) continue;
    const group: number[] = [];
    isTaken[first] = 1;
    waiting.push(first);
    for (let tile = waiting.pop(); tile !== undefined; tile = waiting.pop()) {
      group.push(tile);
      const [column, row] = [tile % columns, Math.floor(tile / columns)];
      for (let y = Math.max(0, row - 1); y <= Math.min(rows - 1, row + 1); y++)
        for (let x = Math.max(0, column - 1); x <= Math.min(columns - 1, column + 1); x++) {
          const near = y * columns + x;
          if (isTaken[near] || tiles[near]! < LEAST_IN_TILE) continue;
          isTaken[near] = 1;
          waiting.push(near);
        }
    }
    found.push(tightBox(mask, width, height, group, columns));
  }
  return fewer(found.filter(({ count }) => count >= LEAST_IN_BOX)).sort((a, b) => a.y - b.y || a.x - b.x);
}

function tightBox(
  mask: Uint8Array,
  width: number,
  height: number,
  tiles: readonly number[],
  columns: number,
): PixelBox {
  let [left, top, right, bottom, count] = [width, height, 0, 0, 0];
  for (const tile of tiles) {
    const [startX, startY] = [(tile % columns) * TILE, Math.floor(tile / columns) * TILE];
    for (let y = startY; y < Math.min(height, startY + TILE); y++)
      for (let x = startX; x < Math.min(width, startX + TILE); x++) {
        if (mask[y * width + x] !== 1) continue;
        count++;
        if (x < left) left = x;
        if (x >= right) right = x + 1;
        if (y < top) top = y;
        if (y >= bottom) bottom = y + 1;
      }
  }
  return { x: left, y: top, width: right - left, height: bottom - top, count };
}

function fewer(boxes: readonly PixelBox[]): PixelBox[] {
  // So many are not told apart by anyone: the smallest go with their nearest.
  let left = [...boxes].sort((a, b) => b.count - a.count);
  while (left.length > MOST_BOXES) {
    const smallest = left.pop()!;
    const distance = (box: PixelBox) => Math.abs(box.y - smallest.y) + Math.abs(box.x - smallest.x);
    const nearest = left.reduce((best, box) => (distance(box) < distance(best) ? box : best));
    left = left.map((box) => (box === nearest ? joined(box, smallest) : box));
  }
  return left;
}

function joined(a: PixelBox, b: PixelBox): PixelBox {
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)];
  return {
    x,
    y,
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y,
    count: a.count + b.count,
  };
}
