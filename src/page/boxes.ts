import type { Box } from './pseudo-box.js';

/** A box without the edges of one of the columns: top, right, bottom, left. */
export function insetBy(box: Box, column: readonly number[], row: number): Box {
  const top = column[4 * row]!;
  const left = column[4 * row + 3]!;
  return {
    x: box.x + left,
    y: box.y + top,
    width: box.width - left - column[4 * row + 1]!,
    height: box.height - top - column[4 * row + 2]!,
  };
}

export function hasEdges(column: readonly number[], row: number): boolean {
  for (let at = 4 * row; at < 4 * row + 4; at++) if (column[at] !== 0) return true;
  return false;
}

export function sidesOf(box: Box): { left: number; right: number } {
  return { left: box.x, right: box.x + box.width };
}

/** The content box of a row, from its border box. */
export function contentBox(
  { border, padding }: { readonly border: readonly number[]; readonly padding: readonly number[] },
  box: Box,
  row: number,
): Box {
  return insetBy(insetBy(box, border, row), padding, row);
}
