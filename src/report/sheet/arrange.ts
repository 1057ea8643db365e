/** Something to be placed, px. */
export interface Box {
  readonly width: number;
  readonly height: number;
}

export interface Placed {
  readonly x: number;
  readonly y: number;
}

export interface Arranged {
  readonly places: readonly Placed[];
  readonly width: number;
  readonly height: number;
}

/** Wider than high, as screens and slides are. */
const SHAPE = 1.7;

/**
 * Puts boxes into rows, in order, each row as high as its highest, all standing on the row's top.
 * @param columns boxes a row; null for rows of such a width that all of it is about `SHAPE` times as wide as high
 */
export function arranged(boxes: readonly Box[], columns: number | null, gap: number): Arranged {
  if (columns !== null) return rowsOf(boxes, columns, Infinity, gap);
  const widest = Math.max(0, ...boxes.map(({ width }) => width));
  const all = boxes.reduce((sum, { width }) => sum + width + gap, gap);
  let best = rowsOf(boxes, Infinity, all, gap);
  for (let rows = 2; rows <= boxes.length; rows++) {
    const next = rowsOf(boxes, Infinity, Math.max(widest + 2 * gap, all / rows + widest / 2), gap);
    if (apart(next) < apart(best)) best = next;
  }
  return best;
}

/** How far a sheet is from its best shape. */
const apart = ({ width, height }: Arranged): number => Math.abs(Math.log(width / height / SHAPE));

function rowsOf(boxes: readonly Box[], columns: number, limit: number, gap: number): Arranged {
  const places: Placed[] = [];
  let [x, y, rowHeight, inRow, width] = [gap, gap, 0, 0, 0];
  for (const box of boxes) {
    if (inRow > 0 && (inRow >= columns || x + box.width + gap > limit)) {
      y += rowHeight + gap;
      [x, rowHeight, inRow] = [gap, 0, 0];
    }
    places.push({ x, y });
    x += box.width + gap;
    width = Math.max(width, x);
    rowHeight = Math.max(rowHeight, box.height);
    inRow++;
  }
  return { places, width: Math.ceil(width), height: Math.ceil(y + rowHeight + gap) };
}
