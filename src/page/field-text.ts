import type { Box } from './pseudo-box.js';

const TYPED = new Set(['text', 'search', 'email', 'password', 'tel', 'url', 'number']);
let canvas: CanvasRenderingContext2D | null | undefined;

function isTransparent({ color, opacity }: CSSStyleDeclaration): boolean {
  return /^(transparent|rgba\(.*, 0\))$/.test(color) || opacity === '0';
}

/** Where the value, or else the placeholder, of a text field stands; null where there is none. Its text node is closed to us. */
export function fieldText(
  field: HTMLInputElement | HTMLTextAreaElement,
  style: CSSStyleDeclaration,
  rect: DOMRect,
): (Box & { text: string }) | null {
  if (field.localName === 'input' && !TYPED.has(field.type)) return null;
  const text = field.value === '' ? field.placeholder : field.value;
  if (text === '') return null;
  // A label stands in the field in its place.
  if (field.value === '' && isTransparent(getComputedStyle(field, '::placeholder'))) return null;
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
  const shown = field.type === 'password' ? '•'.repeat(text.length) : text;
  const width = Math.min(Math.max(0, room), canvas.measureText(shown.slice(0, 500)).width);
  const height = of(style.fontSize) * 1.2;
  const start = rect.x + of(style.borderLeftWidth) + of(style.paddingLeft);
  const atEnd =
    style.textAlign === 'right' || (style.direction === 'rtl' && /start|left/.test(style.textAlign));
  const x = atEnd ? start + room - width : style.textAlign === 'center' ? start + (room - width) / 2 : start;
  const top = rect.y + of(style.borderTopWidth) + of(style.paddingTop);
  const bottom = rect.bottom - of(style.borderBottomWidth) - of(style.paddingBottom);
  const y = field.localName === 'textarea' ? top : (top + bottom - height) / 2;
  return { x, y, width, height, text: field.type === 'password' ? '' : text.slice(0, 80) };
}
