import {
  FLAG_ARIA_HIDDEN,
  FLAG_CONTROL,
  FLAG_FIELD,
  FLAG_IN_PICTURE,
  FLAG_RENDERED,
  FLAG_SOLID,
  FLAG_TEXT,
  KIND_ELEMENT,
  LINE_FIELD,
} from '../core/layout/snapshot.js';
import { union } from '../core/geometry/rect.js';
import { contentBox, hasEdges, insetBy, sidesOf } from './boxes.js';
import { Interner, px, RowInterner } from './columns.js';
import { DrawnShapes } from './drawn-shapes.js';
import { drawnLines } from './drawn-text.js';
import { childrenAmong, FactsReader, namesOf, wordsFlag, type ElementFacts } from './element-facts.js';
import { fieldText, type Field } from './field-text.js';
import { GeneratedRows } from './generated-rows.js';
import { mayHideRoot } from './hidden-roots.js';
import { uidOf, type Generated } from './identity.js';
import { LineColumns } from './line-columns.js';
import { NodeColumns, type Found } from './node-columns.js';
import { attributeOf, childrenOf, flatParentOf } from './own-accessors.js';
import type { Box } from './pseudo-box.js';
import { SideColumns } from './side-columns.js';
import { knownStyles } from './style-memory.js';
import { StyleReader } from './style-reader.js';
import { NO_SIDES, textLines } from './text-lines.js';
import { Walk, type Entry, type Inherited } from './walk.js';
import { computedStyleOf } from './page-px.js';

const MAX_LINES = 400_000;
/** Each is asked about by a call of its own. */
const MAX_SUSPECTS = 40;

const NO_BOX_TAGS = new Set([
  'script',
  'style',
  'template',
  'noscript',
  'link',
  'meta',
  'title',
  'head',
  'base',
]);

/** Takes the elements of a page down, one after another as the walk comes to them. */
export class Collector {
  readonly strings = new Interner();
  readonly styles = new RowInterner();
  /** By row. */
  readonly elements: (Element | Generated | null | undefined)[] = [];
  readonly nodes: NodeColumns;
  readonly text = new LineColumns(this.strings);
  readonly side: SideColumns;
  readonly generated: GeneratedRows;
  readonly walk: Walk;
  /** Uids of elements that may have a closed shadow root: they show something, and nothing in them says what. */
  readonly suspects: number[] = [];
  private readonly reader: StyleReader;
  private readonly facts: FactsReader;
  private readonly shapes = new DrawnShapes();
  private readonly range = document.createRange();

  /**
   * @param rows takes the rows of elements; null where nobody asks for them
   * @param leave counts what is not read
   */
  constructor(
    private readonly rows: Map<Element, number> | null,
    private readonly leave: (what: string, count?: number) => void,
    isTrial: boolean,
  ) {
    const known = knownStyles(isTrial);
    this.reader = new StyleReader(this.strings, this.styles, known);
    this.facts = new FactsReader(known.memory);
    this.nodes = new NodeColumns(this.strings, this.reader);
    this.side = new SideColumns(this.strings, this.reader);
    this.generated = new GeneratedRows(this.nodes, this.text, this.elements, this.range);
    this.walk = new Walk(this.nodes.columns.scope, leave);
  }

  /** Takes one element down, and sends the walk to what is in it. */
  add(entry: Entry): void {
    const { element, inherited } = entry;
    const tag = element.localName;
    const isDrawn = (inherited.flags & FLAG_IN_PICTURE) !== 0 && tag !== 'foreignObject';
    if (isDrawn || NO_BOX_TAGS.has(tag)) this.addBare(entry, tag);
    else this.addElement(entry, tag);
  }

  /** What says nothing but that it is there: what has no box, and what a drawing is made of. */
  private addBare({ element, inherited, nth }: Entry, tag: string): void {
    const inPicture = (inherited.flags & FLAG_IN_PICTURE) !== 0;
    const flags = inherited.flags & (FLAG_IN_PICTURE | FLAG_ARIA_HIDDEN);
    const drawn = inPicture && tag === 'text' ? this.addDrawnText(element, inherited, nth, flags) : null;
    const solid = inPicture ? this.shapes.over(element, tag) : null;
    const node =
      drawn ??
      this.nodes.add(inherited, {
        uid: uidOf(element),
        kind: KIND_ELEMENT,
        tag,
        names: namesOf(element),
        nth,
        flags: solid ? flags | FLAG_RENDERED | FLAG_SOLID : flags,
        element,
        style: solid && computedStyleOf(element, inherited.drawn),
        drawn: inherited.drawn.own,
        rect: solid ?? groupBox(element, tag),
        hasText: true,
      });
    if (inPicture)
      this.walk.push(childrenAmong(childrenOf(element)), { ...inherited, node, treeParent: node });
  }

  /** A `text` element of a drawing with its words; null where they can't be judged. */
  private addDrawnText(element: Element, inherited: Inherited, nth: number, flags: number): number | null {
    if (!(element instanceof SVGTextElement)) return null;
    const style = computedStyleOf(element, inherited.drawn);
    const found = drawnLines(element, style, this.range);
    if (found.length === 0) return null;
    const node = this.addRow(element, inherited, {
      uid: uidOf(element),
      kind: KIND_ELEMENT,
      tag: 'text',
      names: namesOf(element),
      nth,
      flags: flags | FLAG_RENDERED,
      element,
      style,
      drawn: inherited.drawn.own,
      rect: element.getBoundingClientRect(),
      hasText: true,
    });
    this.shapes.addWords(
      element,
      found.map(({ rect }) => rect),
    );
    const face = this.faceOf(node, found[0]!.text);
    for (const line of found) this.text.add(node, inherited.frame, line.rect, line.text, line.flags, face);
    return node;
  }

  private addRow(element: Element, inherited: Inherited, found: Found): number {
    const node = this.nodes.add(inherited, found);
    this.elements[node] = element;
    this.rows?.set(element, node);
    return node;
  }

  private faceOf(node: number, words: string): number {
    return this.text.face(this.nodes.value(node, 'font-family'), words);
  }

  private addElement({ element, inherited, nth }: Entry, tag: string): void {
    const { nodes, reader } = this;
    const { columns } = nodes;
    const drawn = reader.drawn(element, inherited.drawn);
    const style = computedStyleOf(element, drawn);
    const hasNoBox = reader.display(style, element) === 'contents';
    const rendered = hasNoBox || element.checkVisibility();
    const own = this.facts.of(element, tag);
    const rect = rendered && !hasNoBox ? element.getBoundingClientRect() : null;
    const shown = hasNoBox ? wordsBox(element, own.shownTexts, this.range) : rect;
    const flags =
      own.flags |
      wordsFlag(own.texts) |
      (inherited.flags & FLAG_ARIA_HIDDEN) |
      (shown === null ? 0 : FLAG_RENDERED);
    const node = this.addRow(element, inherited, {
      uid: uidOf(element),
      kind: KIND_ELEMENT,
      tag,
      names: own,
      nth,
      flags,
      element,
      style,
      drawn: drawn.own,
      rect: shown,
      // A `pre` has a white-space of its own, whether its text stands in it or in a `code`.
      hasText: (flags & (FLAG_TEXT | FLAG_FIELD | FLAG_CONTROL)) !== 0 || tag === 'pre',
    });
    const display = nodes.value(node, 'display');
    if (rect) this.addBox(element, tag, style, rect, node, inherited);
    this.side.addAllowed(node, element);
    const below = this.below(inherited, node, tag, flags, display, rect, drawn.own);
    if (rect && tag === 'li') this.generated.addMarker(element, style, rect, below);
    if (rendered) this.addContents(element, style, node, flags, own, below);
    if (rect) this.noteSuspect(element, tag, rect, flags, node);
    this.walk.pushBelow(element, below, rect && (() => contentBox(columns, rect, node)), own.children);
  }

  /** What is told of an element with a box, beside its row. */
  private addBox(
    element: Element,
    tag: string,
    style: CSSStyleDeclaration,
    rect: DOMRect,
    node: number,
    { frame }: Inherited,
  ): void {
    const { nodes, side, text } = this;
    const { columns } = nodes;
    const borders = columns.border.slice(-4) as [number, number, number, number];
    side.addBox(node, element, tag, style, columns.style[node]!, borders);
    if (tag === 'input' || tag === 'textarea' || tag === 'select') {
      const inField = fieldText(element as Field, style, rect);
      if (inField) {
        if (inField.wanted !== null) side.addShortField(text.lines.count, inField.wanted);
        if (inField.high !== null) side.addLowField(text.lines.count, inField.high);
        text.add(node, frame, inField, inField.text, LINE_FIELD, this.faceOf(node, inField.text));
      }
    }
    const isInline = nodes.value(node, 'display') === 'inline';
    if (isInline && rect.height > 1.5 * px(Number.parseFloat(nodes.value(node, 'font-size'))))
      text.addFragments(element, node, frame);
  }

  /** What the children of an element take over from it. */
  private below(
    inherited: Inherited,
    node: number,
    tag: string,
    flags: number,
    display: string,
    rect: DOMRect | null,
    drawn: number,
  ): Inherited {
    const { columns } = this.nodes;
    const holds = this.reader.holding(columns.style[node]!);
    const padding = rect && holds.absolute ? insetBy(rect, columns.border, node) : null;
    const isBlock = display !== 'inline' && display !== 'contents';
    return {
      node,
      treeParent: node,
      scope: inherited.scope,
      flags: flags | (tag === 'svg' ? FLAG_IN_PICTURE : 0),
      display: display === 'contents' ? inherited.display : display,
      frame: inherited.frame,
      positioned: padding ?? inherited.positioned,
      fixed: padding && holds.fixed ? padding : inherited.fixed,
      drawn: drawn === inherited.drawn.own ? inherited.drawn : { outer: drawn, own: drawn },
      content: rect && isBlock ? sidesOf(contentBox(columns, rect, node)) : inherited.content,
    };
  }

  /** The words of an element that is shown, between what style sheets put before and after them. */
  private addContents(
    element: Element,
    style: CSSStyleDeclaration,
    node: number,
    flags: number,
    { shownTexts: texts, children }: Pick<ElementFacts, 'shownTexts' | 'children'>,
    below: Inherited,
  ): void {
    const alone = texts.length === 0 && children.length === 0 ? style : null;
    const hasPseudo = this.reader.mayHavePseudo(element);
    if (hasPseudo) this.generated.addPseudo(element, '::before', below, alone);
    const noWrap = /^(nowrap|pre)$/.test(this.nodes.value(node, 'white-space'));
    for (const words of texts) this.addText(words, node, below, noWrap);
    this.side.addWords(node, element, flags, style);
    if (hasPseudo) this.generated.addPseudo(element, '::after', below, alone);
  }

  private addText(words: Text, owner: number, inherited: Inherited, noWrap: boolean): void {
    if (!/\S/.test(words.data)) return;
    const { text } = this;
    if (text.lines.count >= MAX_LINES) {
      this.leave('text lines');
      return;
    }
    // Of lines that run from top to bottom, the sides are not where they end.
    const isVertical = !/^(horizontal|$)/.test(this.nodes.value(owner, 'writing-mode'));
    const sides = isVertical ? NO_SIDES : inherited.content;
    const found = textLines(words, this.range, sides, noWrap);
    const face = found.length > 0 ? this.faceOf(owner, found[0]!.text) : -1;
    for (const line of found) text.add(owner, inherited.frame, line.rect, line.text, line.flags, face);
  }

  private noteSuspect(element: Element, tag: string, rect: DOMRect, flags: number, node: number): void {
    if (this.suspects.length >= MAX_SUSPECTS || !mayHideRoot(element, tag, rect, flags)) return;
    const { columns } = this.nodes;
    const isGrown =
      this.nodes.value(node, 'height') === 'auto' &&
      !hasEdges(columns.padding, node) &&
      !hasEdges(columns.border, node);
    if (isGrown || tag.includes('-')) this.suspects.push(columns.uid[node]!);
  }
}

/** Where the words of an element without a box stand; null where they are not shown. */
function wordsBox(element: Element, texts: readonly Text[], range: Range): Box | null {
  if (wordsFlag(texts) === 0 || !showsContents(boxAround(element))) return null;
  const rects = texts.flatMap((text) => {
    range.selectNodeContents(text);
    return [...range.getClientRects()].filter(({ width, height }) => width > 0 && height > 0);
  });
  return rects.length === 0
    ? null
    : rects.map(({ x, y, width, height }) => ({ x, y, width, height })).reduce(union);
}

/** The nearest element with a box that an element is shown in; null where none has one. */
function boxAround(element: Element): Element | null {
  const around = flatParentOf(element);
  return around && getComputedStyle(around).display === 'contents' ? boxAround(around) : around;
}

/** Whether what stands directly in an element is shown: not in a closed `details`, nor where `content-visibility` hides it. */
function showsContents(element: Element | null): boolean {
  if (element === null) return true;
  if (element.localName === 'details' && attributeOf(element, 'open') === null) return false;
  return element.checkVisibility() && getComputedStyle(element).contentVisibility !== 'hidden';
}

/** What holds others in a drawing is as large as they are. */
function groupBox(element: Element, tag: string): Box | null {
  return tag === 'g' || tag === 'a' || tag === 'svg' ? element.getBoundingClientRect() : null;
}
