import type { Box } from './pseudo-box.js';

const TYPED = new Set(['text', 'search', 'email', 'password', 'tel', 'url', 'number']);
const BUTTONS = new Set(['submit', 'reset', 'button']);
/** What the browser writes into an empty field of these types, about as wide in every language. */
const PATTERNS: Readonly<Record<string, string>> = {
  date: 'mm/dd/yyyy',
  time: '--:-- --',
  'datetime-local': 'mm/dd/yyyy --:-- --',
  month: '--------- ----',
  week: 'Week --, ----',
};
let canvas: CanvasRenderingContext2D | null | undefined;

function isTransparent({ color, opacity }: CSSStyleDeclaration): boolean {
  return /^(transparent|rgba\(.*, 0\))$/.test(color) || opacity === '0';
}

export type Field = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement;

/** What stands in a field, and whether it is as wide as it is, whatever room there is. */
function wordsOf(field: Field): { text: string; isButton: boolean } | null {
  if ('selectedOptions' in field) {
    const isList = field.multiple || field.size > 1;
    return isList ? null : { text: field.selectedOptions[0]?.label ?? '', isButton: false };
  }
  const type = field.localName === 'input' ? field.type : 'text';
  if (BUTTONS.has(type)) return { text: field.value, isButton: true };
  const pattern = PATTERNS[type];
  if (pattern !== undefined) return { text: pattern, isButton: false };
  if (!TYPED.has(type)) return null;
  const { value, placeholder } = field;
  // A label stands in the field in its place.
  if (value === '' && isTransparent(getComputedStyle(field, '::placeholder'))) return null;
  return { text: value === '' ? placeholder : value, isButton: false };
}

/**
 * Where the value, or else the placeholder, of a field or the label of a button stands; null where there is none. Its text
 * node is closed to us. What is too long for a field is scrolled or shortened by the browser; a button cuts it off.
 */
export function fieldText(
  field: Field,
  style: CSSStyleDeclaration,
  rect: DOMRect,
): (Box & { text: string }) | null {
  const words = wordsOf(field);
  if (words === null || words.text === '') return null;
  const { text, isButton } = words;
  canvas ??= document.createElement('canvas').getContext('2d');
  if (!canvas) return null;
  const of = (value: string) => Number.parseFloat(value) || 0;
  const room =
    rect.width -
    of(style.paddingLeft) -
    of(style.paddingRight) -
    of(style.borderLeftWidth) -
    of(style.borderRightWidth);
  canvas.font = style.font;
  const isSecret = field.localName === 'input' && field.type === 'password';
  const shown = isSecret ? '•'.repeat(text.length) : text;
  const wanted = canvas.measureText(shown.slice(0, 500)).width;
  const width = isButton ? wanted : Math.min(Math.max(0, room), wanted);
  const height = of(style.fontSize) * 1.2;
  const start = rect.x + of(style.borderLeftWidth) + of(style.paddingLeft);
  const atEnd =
    style.textAlign === 'right' || (style.direction === 'rtl' && /start|left/.test(style.textAlign));
  const x = atEnd ? start + room - width : style.textAlign === 'center' ? start + (room - width) / 2 : start;
  const top = rect.y + of(style.borderTopWidth) + of(style.paddingTop);
  const bottom = rect.bottom - of(style.borderBottomWidth) - of(style.paddingBottom);
  const y = field.localName === 'textarea' ? top : (top + bottom - height) / 2;
  return { x, y, width, height, text: isSecret ? '' : text.slice(0, 80) };
}
