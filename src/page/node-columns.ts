import {
  FLAG_ANCHOR_TARGET,
  FLAG_REPLACED,
  KIND_ELEMENT,
  type DeclaredProperty,
  type StyleProperty,
} from '../core/layout/snapshot.js';
import type { WireSnapshot } from '../core/layout/wire.js';
import { px, type Interner } from './columns.js';
import { NO_EDGES } from './edges.js';
import type { Names } from './element-facts.js';
import { pushBox, type Frame } from './line-columns.js';
import { zoomOf } from './page-px.js';
import type { Box } from './pseudo-box.js';
import type { StyleReader } from './style-reader.js';

type Nodes = WireSnapshot['nodes'];

/** Where a node stands. */
export interface Place {
  /** Rows of what it is shown in, of its parent in its own tree, and of the holder of that tree; −1 for none. */
  readonly node: number;
  readonly treeParent: number;
  readonly scope: number;
  /** How its parent lays it out. */
  readonly display: string;
  readonly frame: Frame;
}

/** One node as the collector met it. */
export interface Found {
  readonly uid: number;
  readonly kind: number;
  readonly tag: string;
  readonly names: Names;
  readonly nth: number;
  readonly flags: number;
  /** Null for a pseudo-element. */
  readonly element: Element | null;
  /** Null where styles say nothing of it. */
  readonly style: CSSStyleDeclaration | null;
  /** By how much transforms draw its own lengths larger. */
  readonly drawn: number;
  /** In its frame's viewport, CSS px; null for what has no box. */
  readonly rect: Box | null;
  readonly hasText: boolean;
}

const SCROLLS = /auto|scroll|hidden/;
/** They scroll by themselves, whatever their overflow. */
const SCROLLED_TAGS = new Set(['input', 'textarea', 'select']);

/** The columns of a snapshot's elements, before there are any. */
export function noNodes(): Nodes {
  return {
    count: 0,
    uid: [],
    parent: [],
    scope: [],
    treeParent: [],
    kind: [],
    tag: [],
    id: [],
    classes: [],
    nth: [],
    flags: [],
    style: [],
    box: [],
    border: [],
    padding: [],
    margin: [],
    scroll: [],
  };
}

/** The elements and pseudo-elements of a snapshot, in tree order, one row a node. */
export class NodeColumns {
  readonly columns = noNodes();
  /** Row, and how far it is scrolled from the left and from the top, CSS px; flat. */
  readonly scrolled: number[] = [];

  constructor(
    private readonly strings: Interner,
    private readonly reader: StyleReader,
  ) {}

  get count(): number {
    return this.columns.count;
  }

  /** The computed value of a node's property. */
  value(node: number, property: StyleProperty | DeclaredProperty): string {
    return this.reader.value(this.columns.style[node]!, property);
  }

  /** Adds a node. @returns its row */
  add(place: Place, found: Found): number {
    const { columns, strings, reader } = this;
    const { element, style, rect, flags, kind, tag } = found;
    columns.uid.push(found.uid);
    columns.parent.push(place.node);
    columns.scope.push(place.scope);
    columns.treeParent.push(place.treeParent);
    columns.kind.push(kind);
    columns.tag.push(strings.number(tag));
    columns.id.push(strings.number(found.names.id));
    columns.classes.push(strings.number(found.names.classes));
    columns.nth.push(found.nth);
    columns.flags.push(flags);
    const parentRow = place.node < 0 ? -1 : columns.style[place.node]!;
    const border = style ? reader.border(style, element) : NO_EDGES;
    const row = style
      ? reader.read(style, element, parentRow, {
          hasText: found.hasText,
          isReplaced: (flags & FLAG_REPLACED) !== 0,
          isRoot: place.node < 0,
          isAnchorTarget: (flags & FLAG_ANCHOR_TARGET) !== 0,
          parentDisplay: place.display,
          border,
        })
      : reader.none;
    columns.style.push(row);
    if (rect) pushBox(columns.box, place.frame, rect);
    else columns.box.push(0, 0, 0, 0);
    const hasEdges = style !== null && reader.value(row, 'display') !== 'contents';
    push(columns.border, ...(hasEdges ? border : NO_EDGES));
    push(columns.padding, ...(hasEdges ? reader.edges(style, element, 'padding') : NO_EDGES));
    push(columns.margin, ...(hasEdges ? reader.edges(style, element, 'margin') : NO_EDGES));
    const node = columns.count++;
    const overflow = reader.value(row, 'overflow-x') + reader.value(row, 'overflow-y');
    const mayScroll = element !== null && rect !== null && SCROLLS.test(overflow);
    if (mayScroll) {
      const { clientWidth, clientHeight, scrollWidth, scrollHeight } = element;
      const by = found.drawn * zoomOf(element);
      push(columns.scroll, by * clientWidth, by * clientHeight, by * scrollWidth, by * scrollHeight);
    } else {
      columns.scroll.push(0, 0, 0, 0);
    }
    if (mayScroll || (rect && kind === KIND_ELEMENT && SCROLLED_TAGS.has(tag)))
      this.addScrolled(node, element!, found.drawn);
    return node;
  }

  private addScrolled(node: number, element: Element, drawn: number): void {
    const { scrollLeft, scrollTop } = element;
    if ((scrollLeft === 0 && scrollTop === 0) || element === document.scrollingElement) return;
    const by = drawn * zoomOf(element);
    this.scrolled.push(node, px(scrollLeft * by), px(scrollTop * by));
  }
}

function push(column: number[], a: number, b: number, c: number, d: number): void {
  column.push(px(a), px(b), px(c), px(d));
}
