import {
  FLAG_ARIA_HIDDEN,
  FLAG_PICTURE_CONTENT,
  FLAG_RENDERED,
  KIND_AFTER,
  KIND_BEFORE,
} from '../core/layout/snapshot.js';
import { contentBox, hasEdges } from './boxes.js';
import { NO_NAMES } from './element-facts.js';
import { isReadable, signIn } from './generated.js';
import { uidOfGenerated, type Generated } from './identity.js';
import type { Frame, LineColumns } from './line-columns.js';
import { ListMarkers } from './list-markers.js';
import type { NodeColumns } from './node-columns.js';
import { flowPseudoBox, pseudoBox, type Box, type Host } from './pseudo-box.js';
import type { Inherited } from './walk.js';
import { computedStyleOf } from './page-px.js';

/** The rows of what style sheets put before and after elements, and of the numbers and bullets of lists. */
export class GeneratedRows {
  /** Rows of pseudo-elements of which the DOM tells neither box nor text. */
  readonly untold: number[] = [];
  private readonly markers = new ListMarkers();

  /** @param elements by row; each row that is added is noted there */
  constructor(
    private readonly nodes: NodeColumns,
    private readonly text: LineColumns,
    private readonly elements: (Element | Generated | null | undefined)[],
    private readonly range: Range,
  ) {}

  /** @param around the style of its element, where there is nothing else in that; else null */
  addPseudo(
    element: Element,
    which: '::before' | '::after',
    of: Inherited,
    around: CSSStyleDeclaration | null,
  ): void {
    const style = computedStyleOf(element, of.drawn, which);
    if (style.content === 'none' || style.content === 'normal' || style.display === 'none') return;
    const holder = style.position === 'fixed' ? of.fixed : of.positioned;
    const host = /^(absolute|fixed)$/.test(style.position) ? null : this.hostOf(element, of);
    const box = host ? flowPseudoBox(style, which, host) : pseudoBox(style, holder);
    const node = this.add({ host: element, which }, of, box, style);
    const sign = style.visibility === 'visible' ? signIn(style.content) : '';
    if (sign !== '' && box && !host) this.addSign(node, of.frame, box, sign);
    if (sign !== '' && host && around) this.addLoneSign(of, host.content, around, sign);
    // A sign in line is as small as its letters; with padding or a border it is a box that is seen.
    const { padding, border } = this.nodes.columns;
    const isBare = style.display === 'inline' && !hasEdges(padding, node) && !hasEdges(border, node);
    const isTold = (box !== null || isBare) && !isReadable(style.content);
    if (!isTold && style.visibility === 'visible' && style.display !== 'contents') this.untold.push(node);
  }

  /** A sign that was placed fills the content box of its pseudo-element. */
  private addSign(node: number, frame: Frame, box: Box, sign: string): void {
    this.text.add(node, frame, contentBox(this.nodes.columns, box, node), sign, 0);
  }

  /** A sign that is all there is in an element, as those of a font are: its line stands in the middle of the element's height. */
  private addLoneSign(
    { node, frame }: Inherited,
    content: Box,
    style: CSSStyleDeclaration,
    sign: string,
  ): void {
    const em = Number.parseFloat(style.fontSize) || 0;
    const width = Math.min(content.width, em);
    const height = Math.min(content.height, em);
    const isCentred = style.textAlign.includes('center') || style.justifyContent.includes('center');
    const isOnRight =
      style.textAlign === (style.direction === 'rtl' ? 'start' : 'end') || style.textAlign === 'right';
    const aside = (content.width - width) * (isCentred ? 0.5 : isOnRight ? 1 : 0);
    const y = content.y + (content.height - height) / 2;
    if (width > 0 && height > 0)
      this.text.add(node, frame, { x: content.x + aside, y, width, height }, sign, 0);
  }

  /** The number or bullet of an item of a list, which the tree knows nothing of, with its words. */
  addMarker(item: Element, style: CSSStyleDeclaration, rect: Box, of: Inherited): void {
    const marker = this.markers.of(item, style, rect, this.range);
    if (!marker) return;
    const own = computedStyleOf(item, of.drawn, '::marker');
    // Of what a style sheet puts there instead, nobody knows the box.
    if (own.content !== 'normal') return;
    const { box, text } = marker;
    const node = this.add({ host: item, which: '::marker' }, of, box, own);
    const face = this.text.face(this.nodes.value(node, 'font-family'), text);
    this.text.add(node, of.frame, box, text, 0, face);
  }

  private add(generated: Generated, of: Inherited, box: Box | null, style: CSSStyleDeclaration): number {
    const node = this.nodes.add(of, {
      uid: uidOfGenerated(generated),
      kind: generated.which === '::after' ? KIND_AFTER : KIND_BEFORE,
      tag: generated.which,
      names: NO_NAMES,
      nth: 0,
      flags:
        (of.flags & FLAG_ARIA_HIDDEN) |
        (box ? FLAG_RENDERED : 0) |
        (style.content.startsWith('url(') ? FLAG_PICTURE_CONTENT : 0),
      element: null,
      style,
      drawn: of.drawn.own,
      rect: box,
      hasText: true,
    });
    this.elements[node] = generated;
    return node;
  }

  private hostOf(element: Element, { node, display, drawn }: Inherited): Host {
    const { nodes } = this;
    const content = contentBox(nodes.columns, element.getBoundingClientRect(), node);
    const isContext =
      !/^(block|list-item)$/.test(display) ||
      nodes.value(node, 'overflow-x') !== 'visible' ||
      nodes.value(node, 'float') !== 'none';
    const { border, padding } = nodes.columns;
    const holdsTopMargin = isContext || border[4 * node]! > 0 || padding[4 * node]! > 0;
    return { element, display, content, holdsTopMargin, drawn };
  }
}
