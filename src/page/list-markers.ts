import type { Box } from './pseudo-box.js';
import { childrenOf, parentElementOf } from './own-accessors.js';
import { ascentOf, textWidth } from './text-width.js';

/** The number or bullet that stands before an item of a list, outside of its box (CSS Lists 3, section 3). */
export interface Marker {
  readonly box: Box;
  readonly text: string;
}

const ROMAN: readonly (readonly [number, string])[] = [
  [1000, 'm'],
  [900, 'cm'],
  [500, 'd'],
  [400, 'cd'],
  [100, 'c'],
  [90, 'xc'],
  [50, 'l'],
  [40, 'xl'],
  [10, 'x'],
  [9, 'ix'],
  [5, 'v'],
  [4, 'iv'],
  [1, 'i'],
];

function roman(value: number): string {
  let [left, text] = [value, ''];
  for (const [size, sign] of ROMAN) for (; left >= size; left -= size) text += sign;
  return text;
}

function letters(value: number): string {
  let [left, text] = [value, ''];
  for (; left > 0; left = Math.floor((left - 1) / 26))
    text = String.fromCharCode(97 + ((left - 1) % 26)) + text;
  return text;
}

/** The styles of which the words are known (CSS Counter Styles 3, section 6). */
const STYLES: Readonly<Record<string, (value: number) => string>> = {
  decimal: String,
  'decimal-leading-zero': (value) => String(value).padStart(2, '0'),
  'lower-roman': roman,
  'upper-roman': (value) => roman(value).toUpperCase(),
  'lower-alpha': letters,
  'lower-latin': letters,
  'upper-alpha': (value) => letters(value).toUpperCase(),
  'upper-latin': (value) => letters(value).toUpperCase(),
};
/** Bullets, which are drawn as shapes. */
const BULLETS: Readonly<Record<string, string>> = { disc: '•', circle: '◦', square: '▪' };
/** What Chromium leaves between a bullet and the words beside the height of its capitals, CSS px. */
const BULLET_GAP = 7;
const MOST_COUNTED = 3_999;
/** So many nodes of an item are looked through for its first words. */
const MOST_NODES = 40;

/** Counts the items of the page's lists while they are met in their order. */
export class ListMarkers {
  private readonly next = new Map<Element, number>();

  /**
   * What stands before an `li`; null where that is nothing, or nothing outside of its box.
   * @param rect of the item, in its frame's viewport
   */
  of(item: Element, style: CSSStyleDeclaration, rect: Box, range: Range): Marker | null {
    const isOutside = style.listStylePosition === 'outside' && style.listStyleImage === 'none';
    if (style.display !== 'list-item') return null;
    const list = parentElementOf(item);
    const value =
      list?.localName === 'ol' ? this.count(item as HTMLLIElement, list as HTMLOListElement) : null;
    if (!isOutside) return null;
    const bullet = BULLETS[style.listStyleType];
    if (bullet !== undefined) return bulletBeside(bullet, item, style, rect, range);
    const words = STYLES[style.listStyleType];
    if (!words || value === null || value < 1 || value > MOST_COUNTED) return null;
    const line = firstLine(item, range);
    const text = `${words(value)}.`;
    const [width, space] = [textWidth(text, style.font), textWidth(' ', style.font)];
    if (!line || width === null || space === null) return null;
    const pushed = pushedIn(item, style, rect, line, range);
    const x =
      style.direction === 'rtl' ? rect.x + rect.width - pushed + space : rect.x + pushed - space - width;
    return { text, box: { x, y: line.y, width, height: line.height } };
  }

  private count(item: HTMLLIElement, list: HTMLOListElement): number {
    const value = item.hasAttribute('value') ? item.value : (this.next.get(list) ?? firstOf(list));
    this.next.set(list, value + (list.reversed ? -1 : 1));
    return value;
  }
}

/** What a list begins at (HTML, section 4.4.5). */
function firstOf(list: HTMLOListElement): number {
  if (!list.reversed || list.hasAttribute('start')) return list.start;
  return Array.from(childrenOf(list)).filter(({ localName }) => localName === 'li').length;
}

/** Where Chromium draws a bullet: by two thirds of the height of its font above the baseline, in whole px. */
function bulletBeside(
  text: string,
  item: Element,
  style: CSSStyleDeclaration,
  rect: Box,
  range: Range,
): Marker | null {
  const line = firstLine(item, range);
  const ascent = ascentOf(style.font);
  if (!line || ascent === null) return null;
  const height = Math.floor((2 * ascent) / 3);
  const size = Math.floor((height + 1) / 2);
  const away = height + BULLET_GAP;
  const pushed = pushedIn(item, style, rect, line, range);
  const x = style.direction === 'rtl' ? rect.x + rect.width - pushed + away - size : rect.x + pushed - away;
  return { text, box: { x, y: line.y + Math.floor((3 * (ascent - height)) / 2), width: size, height: size } };
}

/** How far floats push the first line of an item in, and what stands before it with that, CSS px. */
function pushedIn(item: Element, style: CSSStyleDeclaration, rect: Box, line: DOMRect, range: Range): number {
  const isRtl = style.direction === 'rtl';
  const isAtStart = isRtl ? /start|right|justify/ : /start|left|justify/;
  if (!isAtStart.test(style.textAlign)) return 0;
  const side = isRtl ? 'right' : 'left';
  const own = ['padding', 'border'].map((name) =>
    Number.parseFloat(style.getPropertyValue(`${name}-${side}${name === 'border' ? '-width' : ''}`)),
  );
  const inner = own.reduce((sum, px) => sum + px, Number.parseFloat(style.textIndent) || 0);
  const from = ({ left, right }: DOMRect) => (isRtl ? rect.x + rect.width - right : left - rect.x) - inner;
  if (from(line) < 1) return 0;
  // A sign before the words is not pushed in itself.
  range.selectNodeContents(item);
  const first = Array.from(range.getClientRects()).filter(
    ({ width, top, bottom }) => width > 0 && top < line.bottom && bottom > line.top,
  );
  return Math.max(0, Math.min(...first.map(from)));
}

/** Where the first words of an item stand: its number stands on the same line. */
function firstLine(item: Element, range: Range): DOMRect | undefined {
  const walker = document.createTreeWalker(item, NodeFilter.SHOW_TEXT);
  for (let looked = 0; looked < MOST_NODES && walker.nextNode(); looked++) {
    const text = walker.currentNode as Text;
    if (!/\S/.test(text.data)) continue;
    range.selectNodeContents(text);
    return range.getClientRects()[0];
  }
  return undefined;
}
