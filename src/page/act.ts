import { findFirst } from './find.js';
import { idOf } from './own-accessors.js';

/** Where an element can be pressed, CSS px in the page's viewport, or why it can't be. */
export type Place =
  | { readonly state: 'ready'; readonly x: number; readonly y: number; readonly rect: string }
  | { readonly state: 'missing' | 'hidden' | 'disabled' }
  | { readonly state: 'covered'; readonly by: string };

/** Brings an element into view and says where its middle lies, if a user could press it there. */
export function locate(selector: string): Place {
  const element = findFirst(selector);
  if (!element) return { state: 'missing' };
  if (!isShown(element)) return { state: 'hidden' };
  if ((element as HTMLButtonElement).disabled) return { state: 'disabled' };
  bringIntoView(element);
  const rect = element.getBoundingClientRect();
  const view = element.ownerDocument.defaultView ?? window;
  const [left, right] = [Math.max(0, rect.left), Math.min(view.innerWidth, rect.right)];
  const [top, bottom] = [Math.max(0, rect.top), Math.min(view.innerHeight, rect.bottom)];
  if (right <= left || bottom <= top) return { state: 'hidden' };
  const x = (left + right) / 2;
  const y = (top + bottom) / 2;
  const hit = (element.getRootNode() as Document | ShadowRoot).elementFromPoint(x, y);
  if (hit && !takesPressOf(element, hit)) return { state: 'covered', by: nameOf(hit) };
  const { dx, dy } = frameOffset(view);
  return {
    state: 'ready',
    x: x + dx,
    y: y + dy,
    rect: [rect.x, rect.y, rect.width, rect.height].map(Math.round).join(),
  };
}

export function isShown(element: Element): boolean {
  const rect = element.getBoundingClientRect();
  return rect.width > 0 && rect.height > 0 && element.checkVisibility({ visibilityProperty: true });
}

export function scrollTo(place: string | { x: number; y: number }): boolean {
  if (typeof place !== 'string') {
    window.scrollTo({ left: place.x, top: place.y, behavior: 'instant' });
    return true;
  }
  if (place === 'top' || place === 'bottom') {
    const { scrollHeight } = document.scrollingElement ?? document.documentElement;
    window.scrollTo({ top: place === 'top' ? 0 : scrollHeight, behavior: 'instant' });
    return true;
  }
  const element = findFirst(place);
  element?.scrollIntoView({ block: 'start', inline: 'nearest', behavior: 'instant' });
  return element !== null;
}

export type FieldKind = 'text' | 'value' | 'missing' | 'none';

/**
 * Puts the caret into a field with all its text selected. Fields that are not typed into (dates, ranges, colours) get the
 * value at once, with the events that a user's input causes.
 */
export function focusField(selector: string, text: string): FieldKind {
  const field = findFirst(selector);
  if (!field) return 'missing';
  const view = field.ownerDocument.defaultView ?? window;
  if (field instanceof view.HTMLInputElement && !TYPED.has(field.type)) {
    field.focus();
    field.value = text;
    announce(field, view);
    return 'value';
  }
  if (field instanceof view.HTMLInputElement || field instanceof view.HTMLTextAreaElement) {
    field.focus();
    field.select();
    return 'text';
  }
  if (field instanceof view.HTMLElement && field.isContentEditable) {
    field.focus();
    view.getSelection()?.selectAllChildren(field);
    return 'text';
  }
  return 'none';
}

const TYPED = new Set(['text', 'search', 'email', 'password', 'tel', 'url', 'number']);

/** Chooses an option by its value or its label. */
export function choose(selector: string, wanted: string): 'done' | 'missing' | 'none' | 'no-option' {
  const field = findFirst(selector);
  if (!field) return 'missing';
  const view = field.ownerDocument.defaultView ?? window;
  if (!(field instanceof view.HTMLSelectElement)) return 'none';
  const option = [...field.options].find(({ value, label }) => value === wanted || label.trim() === wanted);
  if (!option) return 'no-option';
  field.focus();
  if (field.multiple) option.selected = true;
  else field.value = option.value;
  announce(field, view);
  return 'done';
}

export function holds(until: { selector?: string; gone?: string; text?: string }): boolean {
  if (until.selector !== undefined) {
    const element = findFirst(until.selector);
    return element !== null && isShown(element);
  }
  if (until.gone !== undefined) {
    const element = findFirst(until.gone);
    return element === null || !isShown(element);
  }
  return (document.body as HTMLElement | null)?.innerText.includes(until.text ?? '') ?? false;
}

/** What a signed-in page keeps for its origin. */
export function storage(): { origin: string; entries: Record<string, string> } {
  try {
    return {
      origin: location.origin,
      entries: Object.fromEntries(Object.entries(localStorage) as [string, string][]),
    };
  } catch {
    return { origin: location.origin, entries: {} };
  }
}

function announce(field: Element, view: Window & typeof globalThis): void {
  field.dispatchEvent(new view.Event('input', { bubbles: true }));
  field.dispatchEvent(new view.Event('change', { bubbles: true }));
}

function bringIntoView(element: Element): void {
  const rect = element.getBoundingClientRect();
  const view = element.ownerDocument.defaultView ?? window;
  const inside =
    rect.top >= 0 && rect.left >= 0 && rect.bottom <= view.innerHeight && rect.right <= view.innerWidth;
  if (!inside || view !== window)
    element.scrollIntoView({ block: 'center', inline: 'center', behavior: 'instant' });
}

/** Whether pressing `hit` presses `element`: it is inside it, its label, or a control around it. */
function takesPressOf(element: Element, hit: Element): boolean {
  if (element.contains(hit) || hit.contains(element)) return true;
  if (element.shadowRoot || (hit.getRootNode() as ShadowRoot).host === element) return true;
  const label = hit.closest('label');
  return label !== null && label.control === element;
}

function nameOf(element: Element): string {
  const id = idOf(element) === '' ? '' : `#${idOf(element)}`;
  const classes = [...element.classList].slice(0, 2).map((name) => `.${name}`);
  return element.localName + id + (id === '' ? classes.join('') : '');
}

function frameOffset(view: Window): { dx: number; dy: number } {
  let [dx, dy] = [0, 0];
  for (let at: Window = view; at !== window && at.frameElement; at = at.parent) {
    const rect = at.frameElement.getBoundingClientRect();
    dx += rect.x + at.frameElement.clientLeft;
    dy += rect.y + at.frameElement.clientTop;
  }
  return { dx, dy };
}
