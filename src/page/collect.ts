import {
  FLAG_ANCHOR_TARGET,
  FLAG_ARIA_HIDDEN,
  FLAG_CONTROL,
  FLAG_FIELD,
  FLAG_IN_PICTURE,
  FLAG_RENDERED,
  FLAG_REPLACED,
  FLAG_TEXT,
  DECLARED_PROPERTIES,
  KIND_AFTER,
  KIND_BEFORE,
  KIND_ELEMENT,
  LINE_FIELD,
  STYLE_PROPERTIES,
} from '../core/layout/snapshot.js';
import type { WireSnapshot } from '../core/layout/wire.js';
import { hasEdges, insetBy, sidesOf } from './boxes.js';
import { Interner, px, RowInterner } from './columns.js';
import { uidOf, uidOfGenerated, type Generated } from './identity.js';
import { NO_EDGES } from './edges.js';
import { drawnLines } from './drawn-text.js';
import { fieldText, type Field } from './field-text.js';
import { findAll, frameDocument } from './find.js';
import { isReadable } from './generated.js';
import { LineColumns, type Frame } from './line-columns.js';
import { noNodes } from './node-columns.js';
import { mayHideRoot } from './hidden-roots.js';
import { pageFacts } from './page-facts.js';
import { bareAddress, pictureDensity } from './picture-density.js';
import { flowPseudoBox, pseudoBox, type Box, type Host } from './pseudo-box.js';
import { relations } from './relations.js';
import { knownStyles } from './style-memory.js';
import { StyleReader } from './style-reader.js';
import { ownText, sourceOf } from './contents.js';
import { NO_SIDES, textLines } from './text-lines.js';
import { flagsOf, isBroken, referredIds } from './traits.js';
import { positionsByTag, renderedChildNodes } from './tree.js';
import { childrenOf, parentElementOf } from './own-accessors.js';

/** Past these the collector stops reading and says what it left out: a hostile page can't make it run for ever. */
const MAX_NODES = 200_000;
const MAX_LINES = 400_000;
const MAX_MS = 20_000;
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

/** What a child takes over from its parent while the tree is walked. */
interface Inherited {
  readonly node: number;
  readonly treeParent: number;
  readonly scope: number;
  readonly flags: number;
  readonly display: string;
  readonly frame: Frame;
  /** Padding box of the nearest positioned ancestor, in the frame's viewport. */
  readonly positioned: Box;
  /** The same for what is fixed: of the nearest ancestor that holds such boxes, else the viewport. */
  readonly fixed: Box;
  /** Content edges of the nearest block container. */
  readonly content: { left: number; right: number };
}

/** A snapshot, and what of it the page can't tell itself. */
export interface Collected {
  readonly snapshot: WireSnapshot;
  /** Rows of pseudo-elements of which the DOM tells neither box nor text. */
  readonly untold: readonly number[];
  /** Uids of elements that may have a closed shadow root: they show something, and nothing in them says what. */
  readonly suspects: readonly number[];
}

/** Collects the layout snapshot of the page in one walk over its flat tree. */
export function collect(wanted: readonly string[] = [], isTrial = false): Collected {
  const elements: (Element | Generated | null | undefined)[] = [];
  const rows = wanted.length > 0 ? new Map<Element, number>() : null;
  const strings = new Interner();
  const styles = new RowInterner();
  const nodes = noNodes();
  const text = new LineColumns(strings);
  const untold: number[] = [];
  const suspects: number[] = [];
  const shortFields: number[] = [];
  const scrolled: number[] = [];
  const pictures: number[] = [];
  const texts: number[] = [];
  const sources: number[] = [];
  const corners: number[] = [];
  const brokenPictures: WireSnapshot['brokenPictures'] = [];
  const allowed: WireSnapshot['allowed'] = [];
  const referred = referredIds(document);
  const leftOut = new Map<string, number>();
  const deadline = performance.now() + MAX_MS;
  const leave = (what: string, count = 1) => leftOut.set(what, (leftOut.get(what) ?? 0) + count);
  const range = document.createRange();
  const numbers = (target: number[], ...values: number[]) => {
    for (const value of values) target.push(px(value));
  };

  const reader = new StyleReader(strings, styles, knownStyles(isTrial));
  const addNode = (
    inherited: Inherited,
    uid: number,
    kind: number,
    tag: string,
    element: Element | null,
    nth: number,
    flags: number,
    style: CSSStyleDeclaration | null,
    rect: Box | null,
    hasText = true,
  ): number => {
    nodes.uid.push(uid);
    nodes.parent.push(inherited.node);
    nodes.scope.push(inherited.scope);
    nodes.treeParent.push(inherited.treeParent);
    nodes.kind.push(kind);
    nodes.tag.push(strings.number(tag));
    nodes.id.push(strings.number(element?.getAttribute('id') ?? ''));
    nodes.classes.push(strings.number((element?.getAttribute('class') ?? '').trim().replace(/\s+/g, ' ')));
    nodes.nth.push(nth);
    nodes.flags.push(flags);
    const parentRow = inherited.node < 0 ? -1 : nodes.style[inherited.node]!;
    const facts = {
      hasText,
      isReplaced: (flags & FLAG_REPLACED) !== 0,
      isRoot: inherited.node < 0,
      isAnchorTarget: (flags & FLAG_ANCHOR_TARGET) !== 0,
      parentDisplay: inherited.display,
      border: style ? reader.border(style, element) : NO_EDGES,
    };
    const row = style ? reader.read(style, element, parentRow, facts) : reader.none;
    nodes.style.push(row);
    const { dx, dy } = inherited.frame;
    if (rect) numbers(nodes.box, rect.x + dx, rect.y + dy, rect.width, rect.height);
    else nodes.box.push(0, 0, 0, 0);
    numbers(nodes.border, ...facts.border);
    numbers(nodes.padding, ...(style ? reader.edges(style, element, 'padding') : NO_EDGES));
    numbers(nodes.margin, ...(style ? reader.edges(style, element, 'margin') : NO_EDGES));
    const overflow = reader.value(row, 'overflow-x') + reader.value(row, 'overflow-y');
    if (element && rect && /auto|scroll|hidden/.test(overflow)) {
      numbers(
        nodes.scroll,
        element.clientWidth,
        element.clientHeight,
        element.scrollWidth,
        element.scrollHeight,
      );
    } else {
      nodes.scroll.push(0, 0, 0, 0);
    }
    return nodes.count++;
  };

  const faceOf = (node: number, words: string) =>
    text.face(reader.value(nodes.style[node]!, 'font-family'), words);

  const addText = (node: Text, owner: number, inherited: Inherited, noWrap: boolean) => {
    if (!/\S/.test(node.data)) return;
    if (text.lines.count >= MAX_LINES) return leave('text lines');
    // Of lines that run from top to bottom, the sides are not where they end.
    const isVertical = !/^(horizontal|$)/.test(reader.value(nodes.style[owner]!, 'writing-mode'));
    const sides = isVertical ? NO_SIDES : inherited.content;
    const found = textLines(node, range, sides, noWrap);
    const face = found.length > 0 ? faceOf(owner, found[0]!.text) : -1;
    for (const line of found) text.add(owner, inherited.frame, line.rect, line.text, line.flags, face);
  };

  /** What holds others in a drawing is as large as they are. */
  const groupBox = (element: Element, tag: string): Box | null =>
    tag === 'g' || tag === 'a' || tag === 'svg' ? element.getBoundingClientRect() : null;

  /** A `text` element of a drawing with its words; null where they can't be judged. */
  const addDrawnText = (
    element: Element,
    inherited: Inherited,
    nth: number,
    flags: number,
  ): number | null => {
    if (!(element instanceof SVGTextElement)) return null;
    const style = getComputedStyle(element);
    const found = drawnLines(element, style, range);
    if (found.length === 0) return null;
    const rect = element.getBoundingClientRect();
    const own = flags | FLAG_RENDERED;
    const node = addNode(inherited, uidOf(element), KIND_ELEMENT, 'text', element, nth, own, style, rect);
    elements[node] = element;
    rows?.set(element, node);
    const face = faceOf(node, found[0]!.text);
    for (const line of found) text.add(node, inherited.frame, line.rect, line.text, line.flags, face);
    return node;
  };

  const addPseudo = (element: Element, which: '::before' | '::after', of: Inherited) => {
    const style = getComputedStyle(element, which);
    if (style.content === 'none' || style.content === 'normal' || style.display === 'none') return;
    const holder = style.position === 'fixed' ? of.fixed : of.positioned;
    const box = pseudoBox(style, holder) ?? flowPseudoBox(style, which, hostOf(element, of));
    const kind = which === '::before' ? KIND_BEFORE : KIND_AFTER;
    const flags = (of.flags & FLAG_ARIA_HIDDEN) | (box ? FLAG_RENDERED : 0);
    const generated: Generated = { host: element, which };
    const node = addNode(of, uidOfGenerated(generated), kind, which, null, 0, flags, style, box);
    elements[node] = generated;
    // A sign in line is as small as its letters; with padding or a border it is a box that is seen.
    const isBare =
      style.display === 'inline' && !hasEdges(nodes.padding, node) && !hasEdges(nodes.border, node);
    const isTold = (box !== null || isBare) && !isReadable(style.content);
    if (!isTold && style.visibility === 'visible' && style.display !== 'contents') untold.push(node);
  };

  const hostOf = (element: Element, { node, display }: Inherited): Host => {
    const rect = element.getBoundingClientRect();
    const content = insetBy(insetBy(rect, nodes.border, node), nodes.padding, node);
    const value = (property: string) => reader.value(nodes.style[node]!, property);
    const isContext =
      !/^(block|list-item)$/.test(display) || value('overflow-x') !== 'visible' || value('float') !== 'none';
    const holdsTopMargin = isContext || nodes.border[4 * node]! > 0 || nodes.padding[4 * node]! > 0;
    return { element, display, content, holdsTopMargin };
  };

  /** Explicit stack: a page may nest deeper than the call stack reaches. Children are pushed in reverse. */
  const stack: { element: Element; inherited: Inherited; nth: number }[] = [];

  /** @param siblings the children of the elements' own parent, among which `nth` counts */
  const pushChildren = (elements: ArrayLike<Element>, inherited: Inherited, siblings = elements) => {
    const positions = positionsByTag(siblings);
    for (let i = elements.length - 1; i >= 0; i--) {
      const element = elements[i]!;
      stack.push({ element, inherited, nth: positions.get(element) ?? 0 });
    }
  };

  const addElement = ({ element, inherited, nth }: (typeof stack)[number]) => {
    const tag = element.localName;
    const inPicture = (inherited.flags & FLAG_IN_PICTURE) !== 0;
    if (inPicture || NO_BOX_TAGS.has(tag)) {
      const flags = inherited.flags & (FLAG_IN_PICTURE | FLAG_ARIA_HIDDEN);
      const bare =
        (inPicture && tag === 'text' ? addDrawnText(element, inherited, nth, flags) : null) ??
        addNode(
          inherited,
          uidOf(element),
          KIND_ELEMENT,
          tag,
          element,
          nth,
          flags,
          null,
          groupBox(element, tag),
        );
      if (inPicture) pushChildren(childrenOf(element), { ...inherited, node: bare, treeParent: bare });
      return;
    }
    const view = element.ownerDocument.defaultView ?? window;
    const style = view.getComputedStyle(element);
    const rendered = style.display === 'contents' || element.checkVisibility();
    const rect = rendered && style.display !== 'contents' ? element.getBoundingClientRect() : null;
    const flags = flagsOf(element, tag, rect !== null, inherited.flags, referred);
    // A `pre` has a white-space of its own, whether its text stands in it or in a `code`.
    const hasText = (flags & (FLAG_TEXT | FLAG_FIELD | FLAG_CONTROL)) !== 0 || tag === 'pre';
    const node = addNode(
      inherited,
      uidOf(element),
      KIND_ELEMENT,
      tag,
      element,
      nth,
      flags,
      style,
      rect,
      hasText,
    );
    const value = (property: string) => reader.value(nodes.style[node]!, property);
    const display = value('display');
    rows?.set(element, node);
    elements[node] = element;
    const radii = rect
      ? reader.corners(
          style,
          element,
          nodes.style[node]!,
          nodes.border.slice(-4) as [number, number, number, number],
        )
      : '';
    if (radii !== '') corners.push(node, strings.number(radii));
    const source = rect ? sourceOf(element, tag) : null;
    if (source !== null) sources.push(node, strings.number(source));
    if (tag === 'img' && rect) {
      const image = element as HTMLImageElement;
      const { naturalWidth, naturalHeight } = image;
      if (isBroken(image)) brokenPictures.push({ node, url: bareAddress(image.currentSrc) });
      pictures.push(node, naturalWidth, naturalHeight, px(pictureDensity(image)));
    }
    if (rect && (tag === 'input' || tag === 'textarea' || tag === 'select')) {
      const inField = fieldText(element as Field, style, rect);
      if (inField) {
        if (inField.wanted !== null) shortFields.push(text.lines.count, px(inField.wanted));
        text.add(node, inherited.frame, inField, inField.text, LINE_FIELD, faceOf(node, inField.text));
      }
    }
    if (rect && display === 'inline' && rect.height > 1.5 * px(Number.parseFloat(value('font-size'))))
      text.addFragments(element, node, inherited.frame);
    const { scrollLeft, scrollTop } = element;
    if (rect && (scrollLeft !== 0 || scrollTop !== 0) && element !== document.scrollingElement)
      scrolled.push(node, px(scrollLeft), px(scrollTop));
    const allows = element.getAttribute('data-isoptic-allow');
    if (allows !== null) allowed.push({ node, rules: allows });

    const holds = reader.holding(nodes.style[node]!);
    const padding = rect && holds.absolute ? insetBy(rect, nodes.border, node) : null;
    const isBlock = display !== 'inline' && display !== 'contents';
    const below: Inherited = {
      node,
      treeParent: node,
      scope: inherited.scope,
      flags: flags | (tag === 'svg' ? FLAG_IN_PICTURE : 0),
      display: display === 'contents' ? inherited.display : display,
      frame: inherited.frame,
      positioned: padding ?? inherited.positioned,
      fixed: padding && holds.fixed ? padding : inherited.fixed,
      content:
        rect && isBlock
          ? sidesOf(insetBy(insetBy(rect, nodes.border, node), nodes.padding, node))
          : inherited.content,
    };

    const hasPseudo = rendered && reader.mayHavePseudo(element);
    if (hasPseudo) addPseudo(element, '::before', below);
    if (rendered) {
      const noWrap = /^(nowrap|pre)$/.test(value('white-space'));
      for (const child of renderedChildNodes(element, tag)) {
        if (child.nodeType === 3) addText(child as Text, node, below, noWrap);
      }
      if ((flags & FLAG_TEXT) !== 0)
        texts.push(node, strings.number(ownText(element)), strings.number(reader.setting(style, element)));
      if (hasPseudo) addPseudo(element, '::after', below);
    }
    if (rect && suspects.length < MAX_SUSPECTS && mayHideRoot(element, tag, rect, flags)) {
      const isGrown =
        value('height') === 'auto' && !hasEdges(nodes.padding, node) && !hasEdges(nodes.border, node);
      if (isGrown || tag.includes('-')) suspects.push(nodes.uid[node]!);
    }
    pushBelow(element, tag, rect, below);
  };

  /** The children as they are rendered: of the shadow tree, of what is slotted, of the frame's document, or plain. */
  const pushBelow = (element: Element, tag: string, rect: DOMRect | null, below: Inherited) => {
    if (tag === 'iframe' || tag === 'frame') {
      const inner = frameDocument(element);
      if (!inner) leave('frames of another origin');
      else if (rect && (inner.documentElement as Element | null)) {
        const content = insetBy(insetBy(rect, nodes.border, below.node), nodes.padding, below.node);
        const frame = { dx: below.frame.dx + content.x, dy: below.frame.dy + content.y };
        const viewport = { x: 0, y: 0, width: content.width, height: content.height };
        const top = {
          ...below,
          scope: below.node,
          treeParent: -1,
          flags: 0,
          frame,
          positioned: viewport,
          fixed: viewport,
        };
        stack.push({ element: inner.documentElement, inherited: top, nth: 0 });
      }
      return;
    }
    if (element.shadowRoot) {
      pushChildren(element.shadowRoot.children, { ...below, scope: below.node, treeParent: -1 });
      return;
    }
    if (tag === 'slot') {
      const assigned = (element as HTMLSlotElement).assignedElements();
      if (assigned.length > 0) {
        // Slotted elements belong to the host's tree, whose path their selectors follow.
        const host = nodes.scope[below.node] ?? -1;
        const own = { ...below, scope: host < 0 ? -1 : nodes.scope[host]!, treeParent: host };
        pushChildren(assigned, own, siblingsOf(assigned[0]!) ?? assigned);
        return;
      }
    }
    pushChildren(childrenOf(element), below);
  };

  const viewportBox = {
    x: 0,
    y: 0,
    width: document.documentElement.clientWidth,
    height: window.innerHeight,
  };
  stack.push({
    element: document.documentElement,
    nth: 0,
    inherited: {
      node: -1,
      treeParent: -1,
      scope: -1,
      flags: 0,
      display: 'block',
      frame: { dx: window.scrollX, dy: window.scrollY },
      positioned: viewportBox,
      fixed: viewportBox,
      content: { left: 0, right: viewportBox.width },
    },
  });
  for (let entry = stack.pop(); entry; entry = stack.pop()) {
    if (nodes.count >= MAX_NODES || (nodes.count % 256 === 0 && performance.now() > deadline)) {
      leave('elements', stack.length + 1);
      break;
    }
    addElement(entry);
  }

  const snapshot: WireSnapshot = {
    version: 1,
    ...pageFacts(),
    strings: strings.strings,
    styleProperties: [...STYLE_PROPERTIES, ...DECLARED_PROPERTIES],
    styles: styles.flat,
    nodes,
    lines: text.lines,
    faces: [...text.faces],
    shortFields,
    fragments: text.fragments,
    scrolled,
    pictures,
    texts,
    sources,
    corners,
    brokenPictures,
    ...relations(elements, !isTrial, leave),
    allowed,
    matches: wanted.map((selector) => ({
      selector,
      nodes: allOf(selector).flatMap((element) => rows?.get(element) ?? []),
    })),
    leftOut: [...leftOut].map(([what, count]) => ({ what, count })),
  };
  return { snapshot, untold, suspects };
}

function allOf(selector: string): Element[] {
  try {
    return findAll(selector);
  } catch {
    return [];
  }
}

function siblingsOf(element: Element): HTMLCollection | null {
  const parent = parentElementOf(element);
  return parent && childrenOf(parent);
}
