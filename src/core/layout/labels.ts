import { perSnapshot } from './memo.js';
import { hasOwnWidth } from './own-size.js';
import type { Scene } from './scene.js';
import { FLAG_CONTROL } from './snapshot.js';
import { textRowsOf } from './text-rows.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** Longer ones are sentences, and sentences wrap. */
const MOST_LETTERS = 30;
const MOST_WORDS = 4;

/** The short text of a control, and in how many rows it stands. */
export interface ShortLabel {
  readonly text: string;
  readonly rows: number;
}

/** By element whose block has several rows: in how many of them its own text stands. */
const rowCounts = perSnapshot((view): Map<NodeIndex, number> => {
  const found = new Map<NodeIndex, number>();
  for (const { rows } of textRowsOf(view)) {
    // Of an element in one row there is nothing to count.
    if (rows.length < 2) continue;
    for (const row of rows) {
      for (const node of new Set(row.lines.map((line) => view.snapshot.lines.node[line]!)))
        found.set(node, (found.get(node) ?? 0) + 1);
    }
  }
  return found;
});

/** The label of a control that holds one short text and nothing else that is read; null where it has another content. */
export function shortLabelOf(scene: Scene, control: NodeIndex): ShortLabel | null {
  const { view } = scene;
  const owners: NodeIndex[] = [];
  for (let at = control; at <= scene.lastOf(control); at++) if (view.linesOf(at).length > 0) owners.push(at);
  const [owner] = owners;
  if (owner === undefined || owners.length > 1 || !scene.painted[owner]) return null;
  // Broken by its author.
  if (view.childrenOf(owner).some((child) => view.tag(child) === 'br')) return null;
  const text = wholeText(view, view.linesOf(owner));
  if (text.length > MOST_LETTERS || text.split(/\s+/).length > MOST_WORDS) return null;
  return { text, rows: rowCounts(view).get(owner) ?? 1 };
}

/** A line has its own words where they were read, else those of the whole text. */
function wholeText(view: SnapshotView, lines: readonly number[]): string {
  const texts = [...new Set(lines.map((line) => view.lineText(line)))];
  const longest = texts.reduce((a, b) => (b.length > a.length ? b : a));
  return texts.every((text) => longest.includes(text)) ? longest : texts.join(' ');
}

/** Whether a part of a control is nothing but the box of its label: when that is too wide, the control is too narrow. */
export function isLabelPart(scene: Scene, control: NodeIndex, part: NodeIndex): boolean {
  const { view } = scene;
  return view.has(control, FLAG_CONTROL) && !hasOwnWidth(view, part) && shortLabelOf(scene, control) !== null;
}
