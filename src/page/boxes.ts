import type { Box } from './pseudo-box.js';

/** A box without the edges of one of the columns: top, right, bottom, left. */
export function insetBy(box: Box, column: readonly number[], row: number): Box {
  const [top, right, bottom, left] = [0, 1, 2, 3].map((side) => column[4 * row + side]!) as [
    number,
    number,
    number,
    number,
  ];
  return {
    x: box.x + left,
    y: box.y + top,
    width: box.width - left - right,
    height: box.height - top - bottom,
  };
}

export function hasEdges(column: readonly number[], row: number): boolean {
  return [0, 1, 2, 3].some((side) => column[4 * row + side] !== 0);
}

export function sidesOf(box: Box): { left: number; right: number } {
  return { left: box.x, right: box.x + box.width };
}
