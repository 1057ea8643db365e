import { findIn, frameDocument } from './find.js';
import { isInForce, roomRules } from './style-rules.js';
import {
  FLAG_ANCHOR_TARGET,
  FLAG_ARIA_HIDDEN,
  FLAG_CONTROL,
  FLAG_FIELD,
  FLAG_HEADING,
  FLAG_LABEL,
  FLAG_OPENER,
  FLAG_OVERLAY,
  FLAG_PAGE_LINK,
  FLAG_ORNAMENT,
  FLAG_PICTURE,
  FLAG_PLAYER,
  FLAG_STILL_FRAME,
  FLAG_REPLACED,
  FLAG_TOP_LAYER,
} from '../core/layout/snapshot.js';
import { idOf } from './own-accessors.js';

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
const PICTURES = new Set(['img', 'svg', 'video', 'canvas', 'iframe', 'embed', 'object', 'meter', 'progress']);
const FIELDS = new Set(['textarea', 'select']);
/** Inputs that are no text fields. */
const NO_FIELD = /^(checkbox|radio|button|submit|reset|image|range|color|file|hidden)$/;
const OVERLAY_ROLES = new Set(['dialog', 'alertdialog', 'tooltip', 'menu', 'listbox']);
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

/** The flags that an element has by itself, whether it is rendered or not; those of its words aside. @param anchors the ids that links of the page lead to */
export function flagsOf(element: Element, tag: string, anchors: ReadonlySet<string>): number {
  let flags = 0;
  if (isControl(element, tag)) flags |= FLAG_CONTROL;
  if (REPLACED.has(tag)) flags |= FLAG_REPLACED;
  if (element.getAttribute('aria-hidden') === 'true' || element.hasAttribute('inert'))
    flags |= FLAG_ARIA_HIDDEN;
  if (PICTURES.has(tag)) flags |= FLAG_PICTURE | (isOrnament(element) ? FLAG_ORNAMENT : 0);
  if ((tag === 'video' || tag === 'audio') && element.hasAttribute('controls')) flags |= FLAG_PLAYER;
  if (tag === 'iframe' && isStill(element)) flags |= FLAG_STILL_FRAME;
  if (FIELDS.has(tag) || (tag === 'input' && !NO_FIELD.test((element as HTMLInputElement).type)))
    flags |= FLAG_FIELD;
  if (/^h[1-6]$/.test(tag) || element.getAttribute('role') === 'heading') flags |= FLAG_HEADING;
  if (tag === 'label') flags |= FLAG_LABEL;
  if (element.getAttribute('aria-expanded') === 'true' || element.hasAttribute('aria-haspopup'))
    flags |= FLAG_OPENER;
  if (OVERLAY_ROLES.has(element.getAttribute('role') ?? '')) flags |= FLAG_OVERLAY;
  const id = idOf(element);
  if (id !== '' && anchors.has(id)) flags |= FLAG_ANCHOR_TARGET;
  if (tag === 'a' && /^#./.test(element.getAttribute('href') ?? '')) flags |= FLAG_PAGE_LINK;
  if (MAY_BE_TOP_LAYER(element, tag) && inTopLayer(element)) flags |= FLAG_TOP_LAYER;
  return flags;
}

function isOrnament(picture: Element): boolean {
  return (
    picture.getAttribute('alt') === '' || /^(none|presentation)$/.test(picture.getAttribute('role') ?? '')
  );
}

/** Whether the document of a frame may not be scrolled: by the frame, or by its own styles (CSS Overflow 3, section 3.3). */
function isStill(frame: Element): boolean {
  if (/^(no|off|noscroll)$/i.test(frame.getAttribute('scrolling') ?? '')) return true;
  const inner = frameDocument(frame);
  const view = inner?.defaultView;
  if (!inner || !view) return false;
  const [root, body] = [inner.documentElement, inner.body as HTMLElement | null].map((element) =>
    element ? view.getComputedStyle(element).overflowY : 'visible',
  ) as [string, string];
  return /hidden|clip/.test(root === 'visible' ? body : root);
}

/** Came to its end without anything to show. */
export function isBroken(image: HTMLImageElement): boolean {
  return image.complete && image.naturalWidth === 0 && (image.getAttribute('src') ?? image.srcset) !== '';
}

/** Ids of elements that a rule in force makes room for. */
function* madeRoomFor(document: Document): Generator<string> {
  for (const rule of roomRules(document)) {
    if (!isInForce(rule)) continue;
    const of = rule.selector.replace(/:target\b/g, '').replace(/::?before/g, '') || '*';
    for (const element of findIn(document, of)) if (idOf(element) !== '') yield idOf(element);
  }
}

/** Ids that links within a document lead to, but for those that a rule makes room for. */
export function anchorIds(document: Document): ReadonlySet<string> {
  const anchors = new Set<string>();
  for (const link of document.querySelectorAll('a[href^="#"]'))
    anchors.add(link.getAttribute('href')!.slice(1));
  if (anchors.size > 0) for (const id of madeRoomFor(document)) anchors.delete(id);
  return anchors;
}
