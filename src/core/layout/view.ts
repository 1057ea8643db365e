import { holdsAbsolute, holdsFixed } from '../css/containing.js';
import type { Rect } from '../geometry/rect.js';
import {
  FLAG_RENDERED,
  KIND_AFTER,
  KIND_ELEMENT,
  type DeclaredProperty,
  type LayoutSnapshot,
  type StyleProperty,
} from './snapshot.js';

/** Index of an element in a snapshot; −1 is none. */
export type NodeIndex = number;

/** How letters stand in the box of a line. */
export interface Face {
  /** Where the baseline is: the share of the box's height that is over it. */
  readonly baseline: number;
  /** How far letters rise over the baseline and drop below it, em. */
  readonly rise: number;
  readonly drop: number;
  /** The height of the box, em. */
  readonly height: number;
}

/** Reads a layout snapshot by element: what the rules are written against. */
export class SnapshotView {
  readonly count: number;
  /** Index of the page's root element, and of its body (−1 when there is none). */
  readonly root: NodeIndex = 0;
  readonly body: NodeIndex;
  private readonly column: Record<string, number | undefined> = {};
  /** The style row of each element. */
  private readonly rows: Int32Array;
  private readonly width: number;
  private children: readonly (readonly NodeIndex[])[] | null = null;
  private linesByNode: readonly (readonly number[])[] | null = null;
  private fragmentsByNode: readonly (readonly number[])[] | null = null;
  private textRows: Map<NodeIndex, { readonly text: number; readonly setting: number }> | null = null;
  private sourceRows: ReadonlyMap<NodeIndex, number> | null = null;
  private cornerRows: ReadonlyMap<NodeIndex, number> | null = null;
  /** What was computed of this snapshot, by the number of the function that did: see memo.ts. */
  readonly answers: unknown[] = [];
  /** By the number of the attribute's text: repeated elements have the same. */
  private readonly classLists: (readonly string[] | undefined)[] = [];
  private readonly containing: Int32Array;

  constructor(readonly snapshot: LayoutSnapshot) {
    this.count = snapshot.nodes.count;
    this.width = snapshot.styleProperties.length;
    this.rows = snapshot.nodes.style;
    snapshot.styleProperties.forEach((property, i) => (this.column[property] = i));
    this.containing = new Int32Array(this.count).fill(UNKNOWN);
    let body = -1;
    for (let i = 1; i < this.count && body < 0; i++) {
      if (snapshot.nodes.parent[i] === 0 && this.tag(i) === 'body') body = i;
    }
    this.body = body;
  }

  private string(number: number | undefined): string {
    return this.snapshot.strings[number ?? -1] ?? '';
  }

  /** What an element keeps from one snapshot of an open page to the next. */
  uid(i: NodeIndex): number {
    return this.snapshot.nodes.uid[i]!;
  }
  tag(i: NodeIndex): string {
    return this.string(this.snapshot.nodes.tag[i]);
  }
  id(i: NodeIndex): string {
    return this.string(this.snapshot.nodes.id[i]);
  }
  classes(i: NodeIndex): readonly string[] {
    const number = this.snapshot.nodes.classes[i]!;
    let names = this.classLists[number];
    if (!names) {
      const text = this.string(number);
      this.classLists[number] = names = text === '' ? [] : text.split(' ');
    }
    return names;
  }
  parent(i: NodeIndex): NodeIndex {
    return this.snapshot.nodes.parent[i]!;
  }
  isElement(i: NodeIndex): boolean {
    return this.snapshot.nodes.kind[i] === KIND_ELEMENT;
  }
  has(i: NodeIndex, flag: number): boolean {
    return (this.snapshot.nodes.flags[i]! & flag) !== 0;
  }
  isRendered(i: NodeIndex): boolean {
    return this.has(i, FLAG_RENDERED);
  }

  style(i: NodeIndex, property: StyleProperty | DeclaredProperty): string {
    const column = this.column[property];
    if (column === undefined) return '';
    return this.snapshot.strings[this.snapshot.styles[this.rows[i]! * this.width + column]!]!;
  }

  /** Border box. */
  box(i: NodeIndex): Rect {
    return rectAt(this.snapshot.nodes.box, i);
  }

  paddingBox(i: NodeIndex): Rect {
    return inset(this.box(i), this.snapshot.nodes.border, i);
  }

  contentBox(i: NodeIndex): Rect {
    return inset(this.paddingBox(i), this.snapshot.nodes.padding, i);
  }

  /** Used border widths: top, right, bottom, left. */
  borders(i: NodeIndex): [number, number, number, number] {
    const b = this.snapshot.nodes.border;
    return [b[4 * i]!, b[4 * i + 1]!, b[4 * i + 2]!, b[4 * i + 3]!];
  }

  /** Used padding: top, right, bottom, left. */
  paddings(i: NodeIndex): [number, number, number, number] {
    const p = this.snapshot.nodes.padding;
    return [p[4 * i]!, p[4 * i + 1]!, p[4 * i + 2]!, p[4 * i + 3]!];
  }

  /** Used margins: top, right, bottom, left. */
  margins(i: NodeIndex): [number, number, number, number] {
    const m = this.snapshot.nodes.margin;
    return [m[4 * i]!, m[4 * i + 1]!, m[4 * i + 2]!, m[4 * i + 3]!];
  }

  /** The words of an element of its own, white space folded; empty for none. */
  textOf(i: NodeIndex): string {
    return this.string(this.textsByNode().get(i)?.text);
  }

  /** How these words are set (`SETTING_PROPERTIES`), with semicolons between; empty for none. */
  settingOf(i: NodeIndex): string {
    return this.string(this.textsByNode().get(i)?.setting);
  }

  private textsByNode(): ReadonlyMap<NodeIndex, { readonly text: number; readonly setting: number }> {
    if (!this.textRows) {
      const { texts } = this.snapshot;
      this.textRows = new Map();
      for (let at = 0; at + 2 < texts.length; at += 3)
        this.textRows.set(texts[at]!, { text: texts[at + 1]!, setting: texts[at + 2]! });
    }
    return this.textRows;
  }

  /** The radii of a drawn box, from the top left on, with spaces between; empty for none. */
  cornersOf(i: NodeIndex): string {
    this.cornerRows ??= pairsIn(this.snapshot.corners);
    return this.string(this.cornerRows.get(i));
  }

  /** The address of what a picture, film or frame shows; empty for none. */
  sourceOf(i: NodeIndex): string {
    this.sourceRows ??= pairsIn(this.snapshot.sources);
    return this.string(this.sourceRows.get(i));
  }

  /** In the order of the tree: what is generated after an element's content comes last, though it is told of before that. */
  childrenOf(i: NodeIndex): readonly NodeIndex[] {
    this.children ??= this.inTreeOrder(listsBy(this.count, this.snapshot.nodes.parent, this.count));
    return this.children[i] ?? NONE;
  }

  private inTreeOrder(lists: readonly (readonly NodeIndex[])[]): readonly (readonly NodeIndex[])[] {
    const { kind, parent } = this.snapshot.nodes;
    const ordered = [...lists];
    for (let i = 0; i < this.count; i++) {
      const holder = kind[i] === KIND_AFTER ? parent[i]! : -1;
      const siblings = ordered[holder];
      if (siblings && siblings.at(-1) !== i) ordered[holder] = [...siblings.filter((at) => at !== i), i];
    }
    return ordered;
  }

  /** Indices of the text lines that stand directly in an element. */
  linesOf(i: NodeIndex): readonly number[] {
    const { count, node } = this.snapshot.lines;
    this.linesByNode ??= listsBy(count, node, this.count);
    return this.linesByNode[i] ?? NONE;
  }

  /** The boxes that an element is painted as: one a line for an inline element that is broken over several. */
  fragmentsOf(i: NodeIndex): readonly Rect[] {
    const { count, node, box } = this.snapshot.fragments;
    this.fragmentsByNode ??= listsBy(count, node, this.count);
    const rows = this.fragmentsByNode[i]!;
    return rows.length > 0 ? rows.map((row) => rectAt(box, row)) : [this.box(i)];
  }

  /** Of a scroll container, CSS px: what it shows, and all there is to scroll to; zeros for what is none. */
  scrollSizes(
    i: NodeIndex,
  ): [clientWidth: number, clientHeight: number, scrollWidth: number, scrollHeight: number] {
    const s = this.snapshot.nodes.scroll;
    return [s[4 * i]!, s[4 * i + 1]!, s[4 * i + 2]!, s[4 * i + 3]!];
  }

  /** How far the content of a scroll container is scrolled, CSS px. */
  scrolledBy(i: NodeIndex): { readonly x: number; readonly y: number } {
    const { scrolled } = this.snapshot;
    for (let row = 0; row < scrolled.length; row += 3)
      if (scrolled[row] === i) return { x: scrolled[row + 1]!, y: scrolled[row + 2]! };
    return NOT_SCROLLED;
  }

  lineBox(line: number): Rect {
    return rectAt(this.snapshot.lines.box, line);
  }

  /** How the letters of a line stand in its box; null where that is not known. */
  lineFace(line: number): Face | null {
    const { faces, lines } = this.snapshot;
    const at = lines.face[line]! * 4;
    if (at < 0) return null;
    return { baseline: faces[at]!, rise: faces[at + 1]!, drop: faces[at + 2]!, height: faces[at + 3]! };
  }

  lineText(line: number): string {
    return this.string(this.snapshot.lines.text[line]);
  }

  /**
   * The element whose box contains this one for layout: for `absolute` the nearest ancestor that holds such boxes, for
   * `fixed` the nearest one that transforms (CSS Positioned Layout 3, section 2.1), else the parent. −1 is the viewport.
   */
  containingElement(i: NodeIndex): NodeIndex {
    const known = this.containing[i]!;
    if (known !== UNKNOWN) return known;
    const position = this.style(i, 'position');
    let ancestor = this.parent(i);
    if (position === 'fixed') {
      while (ancestor >= 0 && !this.holdsFixed(ancestor)) ancestor = this.parent(ancestor);
    } else if (position === 'absolute') {
      while (ancestor >= 0 && !this.holdsAbsolute(ancestor)) ancestor = this.parent(ancestor);
    } else {
      while (ancestor >= 0 && this.style(ancestor, 'display') === 'contents')
        ancestor = this.parent(ancestor);
    }
    this.containing[i] = ancestor;
    return ancestor;
  }

  private holdsFixed(i: NodeIndex): boolean {
    return this.tag(i) === 'iframe' || holdsFixed((property) => this.style(i, property), this.isInlineBox(i));
  }

  private holdsAbsolute(i: NodeIndex): boolean {
    return (
      this.tag(i) === 'iframe' || holdsAbsolute((property) => this.style(i, property), this.isInlineBox(i))
    );
  }

  private isInlineBox(i: NodeIndex): boolean {
    return this.style(i, 'display') === 'inline';
  }
}

const UNKNOWN = -2;
const NOT_SCROLLED = { x: 0, y: 0 };
const NONE: readonly number[] = [];

/** The rows 0 to `count` by what `column` says of each, in their order. */
function listsBy(count: number, column: Int32Array, most: number): readonly (readonly number[])[] {
  const lists = new Array<number[] | readonly number[]>(most).fill(NONE);
  for (let row = 0; row < count; row++) {
    const at = column[row]!;
    if (at < 0) continue;
    const list = lists[at]!;
    if (list === NONE) lists[at] = [row];
    else (list as number[]).push(row);
  }
  return lists;
}

function rectAt(column: Float64Array, row: number): Rect {
  const at = row * 4;
  return { x: column[at]!, y: column[at + 1]!, width: column[at + 2]!, height: column[at + 3]! };
}

function inset(rect: Rect, edges: Float64Array, row: number): Rect {
  const [top, right, bottom, left] = [
    edges[4 * row]!,
    edges[4 * row + 1]!,
    edges[4 * row + 2]!,
    edges[4 * row + 3]!,
  ];
  return {
    x: rect.x + left,
    y: rect.y + top,
    width: Math.max(0, rect.width - left - right),
    height: Math.max(0, rect.height - top - bottom),
  };
}

/** A column of two numbers a row: by the first, the second. */
function pairsIn(column: Int32Array): ReadonlyMap<number, number> {
  const found = new Map<number, number>();
  for (let at = 0; at + 1 < column.length; at += 2) found.set(column[at]!, column[at + 1]!);
  return found;
}
