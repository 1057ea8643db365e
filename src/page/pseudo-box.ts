import { lastChildOf } from './own-accessors.js';
import { computedStyleOf, type Drawn } from './page-px.js';
/** A rectangle in the coordinates of the viewport. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** The element that a pseudo-element stands in, as far as its place depends on it. */
export interface Host {
  readonly element: Element;
  readonly display: string;
  /** Its content box, and whether an edge, or a context of its own, keeps margins in it from collapsing through it. */
  readonly content: Box;
  readonly holdsTopMargin: boolean;
  /** By how much its lengths are drawn larger. */
  readonly drawn: Drawn;
}

const BLOCK = /^(block|flow-root|flex|grid|table|list-item)$/;
const BLOCK_HOST = /^(block|flow-root|inline-block|list-item|table-cell)$/;

/**
 * The border box of a block-level pseudo-element in the flow of a block, from its used size and margins: `::before` begins
 * where the content does, `::after` follows what stands last. Null for what is inline, or an item of a flex or grid box.
 */
export function flowPseudoBox(
  style: CSSStyleDeclaration,
  which: '::before' | '::after',
  host: Host,
): Box | null {
  if (style.position !== 'static' && style.position !== 'relative') return null;
  const isFloat = style.float !== 'none';
  if (!BLOCK_HOST.test(host.display) || !(isFloat || BLOCK.test(style.display))) return null;
  const size = sizeOf(style);
  if (!size) return null;
  const number = (value: string) => Number.parseFloat(value) || 0;
  const { content } = host;
  const atEnd = isFloat ? style.float === 'right' : style.direction === 'rtl';
  let x = atEnd
    ? content.x + content.width - number(style.marginRight) - size.width
    : content.x + number(style.marginLeft);
  const margin = number(style.marginTop);
  let y = content.y + (host.holdsTopMargin || isFloat ? margin : 0);
  if (which === '::after') {
    const last = endOfContent(host);
    if (last) y = last.bottom + (isFloat ? margin : Math.max(last.margin, margin));
  }
  if (style.position === 'relative') {
    x += number(style.left);
    y += number(style.top);
  }
  return transformed({ x, y, ...size }, style);
}

/** Where the last thing in the flow of an element ends, with the margin below it; null when there is nothing. */
function endOfContent({ element, drawn }: Host): { bottom: number; margin: number } | null {
  for (let node = lastChildOf(element); node; node = node.previousSibling) {
    if (node.nodeType === 3 && /\S/.test((node as Text).data)) {
      const range = element.ownerDocument.createRange();
      range.selectNode(node);
      const rects = range.getClientRects();
      const last = rects[rects.length - 1];
      if (!last) continue;
      // A line ends half its leading below the letters.
      const lineHeight = Number.parseFloat(computedStyleOf(element, drawn).lineHeight) || last.height;
      return { bottom: last.bottom + (lineHeight - last.height) / 2, margin: 0 };
    }
    if (node.nodeType !== 1) continue;
    const style = computedStyleOf(node as Element, drawn);
    if (style.display === 'none' || /absolute|fixed/.test(style.position) || style.float !== 'none') continue;
    const { bottom } = (node as Element).getBoundingClientRect();
    return { bottom, margin: Number.parseFloat(style.marginBottom) || 0 };
  }
  return null;
}

/** The used border box size, CSS px; null where it is not told, as of what is inline. */
function sizeOf(style: CSSStyleDeclaration): { width: number; height: number } | null {
  let width = Number.parseFloat(style.width);
  let height = Number.parseFloat(style.height);
  if (Number.isNaN(width) || Number.isNaN(height)) return null;
  if (style.boxSizing !== 'border-box') {
    const sum = (...values: string[]) =>
      values.reduce((total, value) => total + (Number.parseFloat(value) || 0), 0);
    width += sum(style.paddingLeft, style.paddingRight, style.borderLeftWidth, style.borderRightWidth);
    height += sum(style.paddingTop, style.paddingBottom, style.borderTopWidth, style.borderBottomWidth);
  }
  return { width, height };
}

/**
 * The border box of an absolutely positioned pseudo-element, computed from its used offsets and size, since the DOM
 * gives no box for it. Null for one in flow.
 * @param containing padding box of its containing block
 */
export function pseudoBox(style: CSSStyleDeclaration, containing: Box): Box | null {
  if (style.position !== 'absolute' && style.position !== 'fixed') return null;
  const left = Number.parseFloat(style.left);
  const top = Number.parseFloat(style.top);
  const size = sizeOf(style);
  if (!size || Number.isNaN(left) || Number.isNaN(top)) return null;
  const x = containing.x + left + (Number.parseFloat(style.marginLeft) || 0);
  const y = containing.y + top + (Number.parseFloat(style.marginTop) || 0);
  return transformed({ x, y, ...size }, style);
}

/** The upright bounding box after the element's own transform (CSS Transforms 1, about its transform-origin). */
function transformed(box: Box, style: CSSStyleDeclaration): Box {
  if (style.transform === 'none') return box;
  const matrix = new DOMMatrixReadOnly(style.transform);
  const [originX = 0, originY = 0] = style.transformOrigin.split(' ').map((part) => Number.parseFloat(part));
  const corners = [
    [0, 0],
    [box.width, 0],
    [0, box.height],
    [box.width, box.height],
  ].map(([cx = 0, cy = 0]) => matrix.transformPoint({ x: cx - originX, y: cy - originY }));
  const xs = corners.map((corner) => corner.x + originX);
  const ys = corners.map((corner) => corner.y + originY);
  const x = Math.min(...xs);
  const y = Math.min(...ys);
  return { x: box.x + x, y: box.y + y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
}
