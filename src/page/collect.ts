import {
  FLAG_ARIA_HIDDEN,
  FLAG_CONTROL,
  FLAG_FIELD,
  FLAG_IN_PICTURE,
  FLAG_RENDERED,
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
import { drawnLines } from './drawn-text.js';
import { childrenAmong, FactsReader, namesOf, NO_NAMES, wordsFlag } from './element-facts.js';
import { fieldText, type Field } from './field-text.js';
import { findAll } from './find.js';
import { isReadable } from './generated.js';
import { ListMarkers } from './list-markers.js';
import { LineColumns } from './line-columns.js';
import { NodeColumns } from './node-columns.js';
import { mayHideRoot } from './hidden-roots.js';
import { pageFacts } from './page-facts.js';
import { bareAddress, pictureDensity } from './picture-density.js';
import { flowPseudoBox, pseudoBox, type Box, type Host } from './pseudo-box.js';
import { relations } from './relations.js';
import { knownStyles } from './style-memory.js';
import { StyleReader } from './style-reader.js';
import { ownText, sourceOf } from './contents.js';
import { NO_SIDES, textLines } from './text-lines.js';
import { isBroken } from './traits.js';
import { childrenOf } from './own-accessors.js';
import { Walk, type Entry, type Inherited } from './walk.js';

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
  const known = knownStyles(isTrial);
  const reader = new StyleReader(strings, styles, known);
  const facts = new FactsReader(known.memory);
  const nodes = new NodeColumns(strings, reader);
  const { columns } = nodes;
  const text = new LineColumns(strings);
  const untold: number[] = [];
  const suspects: number[] = [];
  const shortFields: number[] = [];
  const pictures: number[] = [];
  const texts: number[] = [];
  const sources: number[] = [];
  const corners: number[] = [];
  const brokenPictures: WireSnapshot['brokenPictures'] = [];
  const allowed: WireSnapshot['allowed'] = [];
  const leftOut = new Map<string, number>();
  const deadline = performance.now() + MAX_MS;
  const leave = (what: string, count = 1) => leftOut.set(what, (leftOut.get(what) ?? 0) + count);
  const range = document.createRange();
  const walk = new Walk(columns.scope, leave);

  const faceOf = (node: number, words: string) => text.face(nodes.value(node, 'font-family'), words);

  const addText = (node: Text, owner: number, inherited: Inherited, noWrap: boolean) => {
    if (!/\S/.test(node.data)) return;
    if (text.lines.count >= MAX_LINES) return leave('text lines');
    // Of lines that run from top to bottom, the sides are not where they end.
    const isVertical = !/^(horizontal|$)/.test(nodes.value(owner, 'writing-mode'));
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
    const node = nodes.add(inherited, {
      uid: uidOf(element),
      kind: KIND_ELEMENT,
      tag: 'text',
      names: namesOf(element),
      nth,
      flags: flags | FLAG_RENDERED,
      element,
      style,
      rect,
      hasText: true,
    });
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
    const node = nodes.add(of, {
      uid: uidOfGenerated(generated),
      kind,
      tag: which,
      names: NO_NAMES,
      nth: 0,
      flags,
      element: null,
      style,
      rect: box,
      hasText: true,
    });
    elements[node] = generated;
    // A sign in line is as small as its letters; with padding or a border it is a box that is seen.
    const isBare =
      style.display === 'inline' && !hasEdges(columns.padding, node) && !hasEdges(columns.border, node);
    const isTold = (box !== null || isBare) && !isReadable(style.content);
    if (!isTold && style.visibility === 'visible' && style.display !== 'contents') untold.push(node);
  };

  const markers = new ListMarkers();

  /** The number of an item of a list, which the tree knows nothing of, with its words. */
  const addMarker = (item: Element, style: CSSStyleDeclaration, rect: Box, of: Inherited) => {
    const marker = markers.of(item, style, rect, range);
    if (!marker) return;
    const generated: Generated = { host: item, which: '::marker' };
    const node = nodes.add(of, {
      uid: uidOfGenerated(generated),
      kind: KIND_BEFORE,
      tag: '::marker',
      names: NO_NAMES,
      nth: 0,
      flags: (of.flags & FLAG_ARIA_HIDDEN) | FLAG_RENDERED,
      element: null,
      style: getComputedStyle(item, '::marker'),
      rect: marker.box,
      hasText: true,
    });
    elements[node] = generated;
    text.add(node, of.frame, marker.box, marker.text, 0, faceOf(node, marker.text));
  };

  const contentBox = (rect: Box, node: number) =>
    insetBy(insetBy(rect, columns.border, node), columns.padding, node);

  const hostOf = (element: Element, { node, display }: Inherited): Host => {
    const rect = element.getBoundingClientRect();
    const content = contentBox(rect, node);
    const isContext =
      !/^(block|list-item)$/.test(display) ||
      nodes.value(node, 'overflow-x') !== 'visible' ||
      nodes.value(node, 'float') !== 'none';
    const holdsTopMargin = isContext || columns.border[4 * node]! > 0 || columns.padding[4 * node]! > 0;
    return { element, display, content, holdsTopMargin };
  };

  /** What says nothing but that it is there: what has no box, and what a drawing is made of. */
  const addBare = ({ element, inherited, nth }: Entry, tag: string) => {
    const inPicture = (inherited.flags & FLAG_IN_PICTURE) !== 0;
    const flags = inherited.flags & (FLAG_IN_PICTURE | FLAG_ARIA_HIDDEN);
    const drawn = inPicture && tag === 'text' ? addDrawnText(element, inherited, nth, flags) : null;
    const node =
      drawn ??
      nodes.add(inherited, {
        uid: uidOf(element),
        kind: KIND_ELEMENT,
        tag,
        names: namesOf(element),
        nth,
        flags,
        element,
        style: null,
        rect: groupBox(element, tag),
        hasText: true,
      });
    if (inPicture) walk.push(childrenAmong(childrenOf(element)), { ...inherited, node, treeParent: node });
  };

  const addElement = (entry: Entry) => {
    const { element, inherited, nth } = entry;
    const tag = element.localName;
    const isDrawn = (inherited.flags & FLAG_IN_PICTURE) !== 0 && tag !== 'foreignObject';
    if (isDrawn || NO_BOX_TAGS.has(tag)) {
      addBare(entry, tag);
      return;
    }
    const view = element.ownerDocument.defaultView ?? window;
    const style = view.getComputedStyle(element);
    const hasNoBox = reader.display(style, element) === 'contents';
    const rendered = hasNoBox || element.checkVisibility();
    const rect = rendered && !hasNoBox ? element.getBoundingClientRect() : null;
    const own = facts.of(element, tag);
    const flags =
      own.flags |
      wordsFlag(own.texts) |
      (inherited.flags & FLAG_ARIA_HIDDEN) |
      (rect === null ? 0 : FLAG_RENDERED);
    const node = nodes.add(inherited, {
      uid: uidOf(element),
      kind: KIND_ELEMENT,
      tag,
      names: own,
      nth,
      flags,
      element,
      style,
      rect,
      // A `pre` has a white-space of its own, whether its text stands in it or in a `code`.
      hasText: (flags & (FLAG_TEXT | FLAG_FIELD | FLAG_CONTROL)) !== 0 || tag === 'pre',
    });
    const value = (property: Parameters<typeof nodes.value>[1]) => nodes.value(node, property);
    const display = value('display');
    rows?.set(element, node);
    elements[node] = element;
    const radii = rect
      ? reader.corners(
          style,
          element,
          columns.style[node]!,
          columns.border.slice(-4) as [number, number, number, number],
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
    const allows = element.getAttribute('data-isoptic-allow');
    if (allows !== null) allowed.push({ node, rules: allows });

    const holds = reader.holding(columns.style[node]!);
    const padding = rect && holds.absolute ? insetBy(rect, columns.border, node) : null;
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
      content: rect && isBlock ? sidesOf(contentBox(rect, node)) : inherited.content,
    };

    if (rect && tag === 'li') addMarker(element, style, rect, below);
    const hasPseudo = rendered && reader.mayHavePseudo(element);
    if (hasPseudo) addPseudo(element, '::before', below);
    if (rendered) {
      const noWrap = /^(nowrap|pre)$/.test(value('white-space'));
      for (const words of own.shownTexts) addText(words, node, below, noWrap);
      if ((flags & FLAG_TEXT) !== 0)
        texts.push(node, strings.number(ownText(element)), strings.number(reader.setting(style, element)));
      if (hasPseudo) addPseudo(element, '::after', below);
    }
    if (rect && suspects.length < MAX_SUSPECTS && mayHideRoot(element, tag, rect, flags)) {
      const isGrown =
        value('height') === 'auto' && !hasEdges(columns.padding, node) && !hasEdges(columns.border, node);
      if (isGrown || tag.includes('-')) suspects.push(columns.uid[node]!);
    }
    walk.pushBelow(element, below, rect && (() => contentBox(rect, node)), own.children);
  };

  for (let entry = walk.next(); entry; entry = walk.next()) {
    if (nodes.count >= MAX_NODES || (nodes.count % 256 === 0 && performance.now() > deadline)) {
      leave('elements', walk.left + 1);
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
    nodes: columns,
    lines: text.lines,
    faces: [...text.faces],
    shortFields,
    fragments: text.fragments,
    scrolled: nodes.scrolled,
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
