import { FEW_LETTERS } from '../core/layout/snapshot.js';
import { placeholderHeight } from './placeholder-lines.js';
import type { Box } from './pseudo-box.js';
import { textWidth } from './text-width.js';

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

function isTransparent({ color, opacity }: CSSStyleDeclaration): boolean {
  return /^(transparent|rgba\(.*, 0\))$/.test(color) || opacity === '0';
}

export type Field = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement;

/** What stands in a field: the label of a button, a placeholder, or a value that was typed, chosen or is written by the browser. */
interface Words {
  readonly text: string;
  readonly kind: 'label' | 'placeholder' | 'value';
}

/** A list of which several rows are seen. */
function isOpenList(field: HTMLSelectElement): boolean {
  return field.multiple || field.size > 1;
}

/** Of an open list, the row that needs the most room. */
function longestOf({ options }: HTMLSelectElement): HTMLOptionElement | undefined {
  let longest = options[0];
  for (const option of options) if (option.label.length > longest!.label.length) longest = option;
  return longest;
}

function wordsOf(field: Field): Words | null {
  if ('selectedOptions' in field) {
    const shown = isOpenList(field) ? [longestOf(field)] : field.selectedOptions;
    return { text: shown[0]?.label ?? '', kind: 'value' };
  }
  const type = field.localName === 'input' ? field.type : 'text';
  if (BUTTONS.has(type)) return { text: field.value, kind: 'label' };
  const pattern = PATTERNS[type];
  if (pattern !== undefined) return { text: momentOf(field) ?? pattern, kind: 'value' };
  if (!TYPED.has(type)) return null;
  const { value, placeholder } = field;
  if (value !== '') return { text: value, kind: 'value' };
  // A label stands in the field in its place.
  if (isTransparent(getComputedStyle(field, '::placeholder'))) return null;
  return { text: placeholder, kind: 'placeholder' };
}

const DAY = { day: '2-digit', month: '2-digit', year: 'numeric' } as const;
const TIME = { hour: '2-digit', minute: '2-digit' } as const;
/** How the browser writes what was chosen in a field of these types. */
const MOMENTS: Readonly<Record<string, Intl.DateTimeFormatOptions>> = {
  date: DAY,
  time: TIME,
  'datetime-local': { ...DAY, ...TIME },
};

/** A day or time that was chosen, about as the browser writes it; null where none was. */
function momentOf(field: HTMLInputElement | HTMLTextAreaElement): string | null {
  const format = MOMENTS[field.type];
  if (!format || !('valueAsNumber' in field) || Number.isNaN(field.valueAsNumber)) return null;
  return new Date(field.valueAsNumber).toLocaleString(undefined, { timeZone: 'UTC', ...format });
}

/** What Chromium keeps free for the sign that opens a calendar or a clock, beside one em: its padding and that of the parts of a date; CSS px. */
const PICKER = 8;
/** And before the sign of a clock. */
const CLOCK = 11;

function pickerRoom(field: Field, fontSize: number): number {
  if (field.localName !== 'input' || !(field.type in PATTERNS)) return 0;
  return fontSize + PICKER + (field.type === 'time' ? CLOCK : 0);
}

/** What Chromium keeps free in a list that it draws itself, beside the padding: before the words, and for the arrow. */
const LIST_START = 4;
const LIST_END = 16;
/** And on either side of a row of a list that is open. */
const ROW_EDGE = 2;
/** What that is off by in other versions, CSS px. */
const LIST_SLACK = 6;
/** Of the words that were chosen, a closed list tells too little if it shows less than this. */
const LEAST_OF_CHOICE = 0.45;
/** Of the last line of a placeholder, what is lost before it can't be read. */
const LEAST_OF_LINE = 0.6;

/**
 * Where the value, or else the placeholder, of a field or the label of a button stands; null where there is none. Its text
 * node is closed to us. What is too long for a field is scrolled or shortened by the browser; a button cuts it off. `wanted` is the width, CSS px, that
 * a placeholder or a short value would have, where that is more than there is; `high` the height that the placeholder of a text area would have, where its last line has no room.
 */
export function fieldText(
  field: Field,
  style: CSSStyleDeclaration,
  rect: DOMRect,
): (Box & { text: string; wanted: number | null; high: number | null }) | null {
  const words = wordsOf(field);
  // A blank placeholder is how style sheets are told that the field is empty.
  if (words === null || words.text.trim() === '') return null;
  const { text, kind } = words;
  const of = (value: string) => Number.parseFloat(value) || 0;
  const isList = field.localName === 'select' && style.appearance !== 'none';
  const isOpen = 'selectedOptions' in field && isOpenList(field);
  const picker = pickerRoom(field, of(style.fontSize));
  const [keptStart, keptEnd] = isOpen ? [ROW_EDGE, ROW_EDGE] : isList ? [LIST_START, LIST_END] : [0, picker];
  const room =
    rect.width -
    of(style.paddingLeft) -
    of(style.paddingRight) -
    of(style.borderLeftWidth) -
    of(style.borderRightWidth) -
    keptStart -
    keptEnd;
  const isSecret = field.localName === 'input' && field.type === 'password';
  const shown = isSecret ? '•'.repeat(text.length) : text;
  const wanted = textWidth(shown.slice(0, 500), style.font);
  if (wanted === null) return null;
  const width = kind === 'label' ? wanted : Math.min(Math.max(0, room), wanted);
  const height = of(style.fontSize) * 1.2;
  const before = style.direction === 'rtl' ? keptEnd : keptStart;
  const start = rect.x + of(style.borderLeftWidth) + of(style.paddingLeft) + before;
  const atEnd =
    style.textAlign === 'right' || (style.direction === 'rtl' && /start|left/.test(style.textAlign));
  const x = atEnd ? start + room - width : style.textAlign === 'center' ? start + (room - width) / 2 : start;
  const top = rect.y + of(style.borderTopWidth) + of(style.paddingTop);
  const bottom = rect.bottom - of(style.borderBottomWidth) - of(style.paddingBottom);
  // The chosen words of a list that is too low for them begin at its top, what is typed stays in the middle of its field.
  const isArea = field.localName === 'textarea';
  const isAtTop = isOpen || isArea || (field.localName === 'select' && bottom - top < height);
  const y = isAtTop ? top : (top + bottom - height) / 2;
  // A long value is there to be scrolled; of a few letters or figures each counts.
  const isOneLine =
    field.localName === 'select' ||
    (field.localName === 'input' && (TYPED.has(field.type) || field.type in PATTERNS));
  // A list that shortens its choices still tells them by their beginnings: rows that are read as they are by more of them than the one
  // that was chosen.
  const isShortened = field.localName === 'select' && style.textOverflow !== 'ellipsis';
  const shownShare = Math.min(1, room / wanted);
  const saysLittle = isOpen ? text.length * shownShare <= FEW_LETTERS : shownShare < LEAST_OF_CHOICE;
  // What does not fit into a text area goes on in its next line.
  const isToBeSeen =
    (kind === 'placeholder' && !isArea) ||
    (isOneLine && (text.length <= FEW_LETTERS || (isShortened && saysLittle)));
  const isShort = isToBeSeen && wanted > room + (isList ? LIST_SLACK : 0);
  const high = isArea && kind === 'placeholder' ? placeholderHeight(text, style, room) : 0;
  return {
    x,
    y,
    width,
    height,
    text: isSecret ? '' : text.slice(0, 80),
    wanted: isShort ? wanted : null,
    high: high - (bottom - top) > LEAST_OF_LINE * height ? high : null,
  };
}
