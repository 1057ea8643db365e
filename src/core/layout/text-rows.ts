import { union, type Rect } from '../geometry/rect.js';
import { blockAround } from './ancestors.js';
import { perSnapshot } from './memo.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** The rows of text in one block, from the top down: pieces that stand beside one another are one row. */
export interface TextRows {
  readonly block: NodeIndex;
  readonly rows: readonly { readonly rect: Rect; readonly lines: readonly number[] }[];
}

/** The text of a page by the blocks that it is laid out in. */
export const textRowsOf = perSnapshot((view): TextRows[] => {
  const byBlock = new Map<NodeIndex, number[]>();
  const { count, node } = view.snapshot.lines;
  for (let line = 0; line < count; line++) {
    const block = blockAround(view, node[line]!);
    const list = byBlock.get(block);
    if (list) list.push(line);
    else byBlock.set(block, [line]);
  }
  return [...byBlock].map(([block, lines]) => ({ block, rows: rowsOf(view, lines) }));
});

function rowsOf(view: SnapshotView, lines: readonly number[]): TextRows['rows'] {
  if (lines.length === 1) return [{ rect: view.lineBox(lines[0]!), lines }];
  const rows: { rect: Rect; lines: number[] }[] = [];
  for (const line of fromTopDown(view, lines)) {
    const box = view.lineBox(line);
    const last = rows.at(-1);
    // Larger and smaller letters on one row start at different heights.
    if (last && box.y + box.height / 2 < last.rect.y + last.rect.height) {
      last.rect = union(last.rect, box);
      last.lines.push(line);
    } else rows.push({ rect: box, lines: [line] });
  }
  return rows;
}

/** Most lines come in that order. */
function fromTopDown(view: SnapshotView, lines: readonly number[]): readonly number[] {
  const { box } = view.snapshot.lines;
  const top = (line: number) => box[4 * line + 1]!;
  const isSorted = lines.every((line, at) => at === 0 || top(lines[at - 1]!) <= top(line));
  return isSorted ? lines : [...lines].sort((a, b) => top(a) - top(b));
}
