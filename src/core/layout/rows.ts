import { isOutOfFlow } from './displace.js';
import { repeatedColumn } from './repeated-tracks.js';
import type { NodeIndex, SnapshotView } from './view.js';

export interface Rows {
  /** How many of the children stand in each row, from the top down; empty where they do not stand in rows. */
  readonly rows: readonly number[];
  /** The children as they are seen, by their numbers, where that is not the order of the document; else empty. */
  readonly order: string;
  /** Of each row, how much room is left in the container beside its children, or beside the columns that they ask for, CSS px. */
  readonly room: readonly number[];
}

const NO_ROWS: Rows = { rows: [], order: '', room: [] };
/** Two boxes that share no more of their height stand below one another, CSS px. */
const LEAST_SHARED = 1;

/**
 * How the children of a container stand beside and below one another. Only where its layout puts boxes beside one another: flex,
 * grid, floats, inline blocks without text between them.
 */
export function rowsOf(view: SnapshotView, container: NodeIndex, numbers: Int32Array): Rows {
  const children = view.childrenOf(container).filter((child) => isItem(view, child));
  if (children.length < 2 || !children.some((child) => isBesides(view, container, child))) return NO_ROWS;
  const placed = children
    .map((child) => ({ child, box: view.box(child) }))
    .sort((a, b) => a.box.y - b.box.y || a.box.x - b.box.x);
  const rows: Row[] = [];
  for (const { child, box } of placed) {
    const last = rows.at(-1);
    const bottom = box.y + box.height;
    const end = box.x + box.width;
    if (last && box.y < last.bottom - LEAST_SHARED) {
      last.items.push({ child, x: box.x });
      last.bottom = Math.max(last.bottom, bottom);
      last.start = Math.min(last.start, box.x);
      last.end = Math.max(last.end, end);
      last.boxes += box.width;
    } else rows.push({ bottom, start: box.x, end, boxes: box.width, items: [{ child, x: box.x }] });
  }
  const { width } = view.contentBox(container);
  const column = repeatedColumn(view, container);
  const seen = rows.flatMap(({ items }) => [...items].sort((a, b) => a.x - b.x).map(({ child }) => child));
  const isAsWritten = seen.every((child, i) => i === 0 || child > seen[i - 1]!);
  return {
    rows: rows.map(({ items }) => items.length),
    order: isAsWritten ? '' : seen.map((child) => numbers[child]).join(' '),
    room: rows.map((row) => width - wantedBy(row, column)),
  };
}

interface Row {
  bottom: number;
  start: number;
  end: number;
  /** The widths of all of its boxes. */
  boxes: number;
  readonly items: { readonly child: NodeIndex; readonly x: number }[];
}

/** How wide a row has to be, CSS px. @param column what each of its boxes asks for at the least, where all of them fill the container */
function wantedBy({ start, end, boxes, items }: Row, column: number | null): number {
  const spread = end - start;
  return column === null ? spread : spread - boxes + items.length * column;
}

function isItem(view: SnapshotView, child: NodeIndex): boolean {
  if (!view.isElement(child) || !view.isRendered(child)) return false;
  if (isOutOfFlow(view, child)) return false;
  const { width, height } = view.box(child);
  return width > 0 && height > 0;
}

function isBesides(view: SnapshotView, container: NodeIndex, child: NodeIndex): boolean {
  if (/flex|grid/.test(view.style(container, 'display'))) return true;
  if (view.style(child, 'float') !== 'none') return true;
  return /^inline-/.test(view.style(child, 'display')) && view.linesOf(container).length === 0;
}

/** Columns are what the fullest row has; what stands in no rows stands in one. */
export function columnsIn(rows: readonly number[]): number {
  return Math.max(1, ...rows);
}
