import type { Box } from './pseudo-box.js';
import { childrenOf, parentElementOf } from './own-accessors.js';
import { textWidth } from './text-width.js';

/** The number that stands before an item of a list, outside of its box (CSS Lists 3, section 3). */
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
const MOST_COUNTED = 3_999;
/** So many nodes of an item are looked through for its first words. */
const MOST_NODES = 40;

/** Counts the items of the page's lists while they are met in their order. Of bullets nothing is read. */
export class ListMarkers {
  private readonly next = new Map<Element, number>();

  /**
   * The number before an `li`; null where it has none, or none outside of its box.
   * @param rect of the item, in its frame's viewport
   */
  of(item: Element, style: CSSStyleDeclaration, rect: Box, range: Range): Marker | null {
    const list = parentElementOf(item);
    if (list?.localName !== 'ol' || style.display !== 'list-item') return null;
    const value = this.count(item as HTMLLIElement, list as HTMLOListElement);
    const words = STYLES[style.listStyleType];
    const isOutside = style.listStylePosition === 'outside' && style.listStyleImage === 'none';
    if (!words || !isOutside || style.direction === 'rtl' || value < 1 || value > MOST_COUNTED) return null;
    const line = firstLine(item, range);
    const text = `${words(value)}.`;
    const [width, space] = [textWidth(text, style.font), textWidth(' ', style.font)];
    if (!line || width === null || space === null) return null;
    return { text, box: { x: rect.x - space - width, y: line.y, width, height: line.height } };
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
