import {
  FLAG_ARIA_HIDDEN,
  FLAG_CONTROL,
  FLAG_RENDERED,
  FLAG_REPLACED,
  FLAG_TEXT,
  FLAG_TOP_LAYER,
} from '../core/layout/snapshot.js';

const REPLACED = new Set([
  'img',
  'picture-source',
  'video',
  'canvas',
  'iframe',
  'embed',
  'object',
  'svg',
  'input',
  'textarea',
  'select',
  'meter',
  'progress',
  'audio',
  'math',
]);
const CONTROL_TAGS = new Set(['button', 'input', 'select', 'textarea', 'summary']);
const CONTROL_ROLES = new Set([
  'button',
  'link',
  'checkbox',
  'radio',
  'switch',
  'tab',
  'menuitem',
  'menuitemcheckbox',
  'menuitemradio',
  'option',
  'slider',
  'spinbutton',
  'textbox',
  'searchbox',
  'combobox',
  'treeitem',
]);

export function isControl(element: Element, tag: string): boolean {
  if (tag === 'input') return (element as HTMLInputElement).type !== 'hidden';
  if (CONTROL_TAGS.has(tag)) return true;
  if (tag === 'a') return element.hasAttribute('href');
  const role = element.getAttribute('role');
  return role !== null && CONTROL_ROLES.has(role);
}

function inTopLayer(element: Element): boolean {
  // Selectors that an older engine does not know throw.
  for (const selector of [':modal', ':popover-open', ':fullscreen']) {
    try {
      if (element.matches(selector)) return true;
    } catch {
      continue;
    }
  }
  return false;
}

const MAY_BE_TOP_LAYER = (element: Element, tag: string) =>
  tag === 'dialog' || element.hasAttribute('popover');

/** The flags of one element; `inherited` are its parent's. */
export function flagsOf(element: Element, tag: string, rendered: boolean, inherited: number): number {
  let flags = inherited & FLAG_ARIA_HIDDEN;
  if (rendered) flags |= FLAG_RENDERED;
  if (isControl(element, tag)) flags |= FLAG_CONTROL;
  if (REPLACED.has(tag)) flags |= FLAG_REPLACED;
  if (element.getAttribute('aria-hidden') === 'true' || element.hasAttribute('inert'))
    flags |= FLAG_ARIA_HIDDEN;
  if (MAY_BE_TOP_LAYER(element, tag) && inTopLayer(element)) flags |= FLAG_TOP_LAYER;
  for (let child = element.firstChild; child; child = child.nextSibling) {
    if (child.nodeType === 3 && /\S/.test((child as Text).data)) {
      flags |= FLAG_TEXT;
      break;
    }
  }
  return flags;
}
