import { FLAG_REPLACED } from '../core/layout/snapshot.js';
import type { Box } from './pseudo-box.js';

/** Whether an element may have a shadow root that is closed to scripts: custom elements, and boxes grown by nothing. */
export function mayHideRoot(element: Element, tag: string, { width, height }: Box, flags: number): boolean {
  if (element.shadowRoot || (flags & FLAG_REPLACED) !== 0 || width * height === 0) return false;
  return tag.includes('-') || (HOSTS.has(tag) && !element.hasChildNodes());
}

/** Of the browser's own elements, those that pages attach shadow trees to. */
const HOSTS = new Set(['div', 'span', 'section', 'article', 'aside', 'main', 'nav', 'header', 'footer']);
