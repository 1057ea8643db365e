import { digest } from '../core/identity/digest.js';
import { MOST_TEXT, SETTING_PROPERTIES } from '../core/layout/snapshot.js';
import { bareAddress } from './picture-density.js';

/** The words that stand in an element itself, white space folded; an elements' place among them is a space. */
export function ownText(element: Element): string {
  const parts: string[] = [];
  for (let child = element.firstChild; child; child = child.nextSibling)
    parts.push(child.nodeType === 3 ? (child as Text).data : ' ');
  return shortened(parts.join('').replace(/\s+/g, ' ').trim());
}

function shortened(text: string): string {
  return text.length <= MOST_TEXT
    ? text
    : `${text.slice(0, MOST_TEXT)}… ${text.length} ${digest(text.slice(MOST_TEXT))}`;
}

/** How words are set, in the order of `SETTING_PROPERTIES`, with semicolons between. */
export function settingOf(style: CSSStyleDeclaration): string {
  return SETTING_PROPERTIES.map((property) => style.getPropertyValue(property)).join(';');
}

/** What is shown in a box from elsewhere; null for what shows nothing, or has no address. */
export function sourceOf(element: Element, tag: string): string | null {
  const address =
    tag === 'img'
      ? (element as HTMLImageElement).currentSrc
      : tag === 'video'
        ? (element as HTMLVideoElement).poster || (element as HTMLVideoElement).currentSrc
        : tag === 'iframe' || tag === 'embed' || tag === 'object'
          ? (element.getAttribute('src') ?? element.getAttribute('data') ?? '')
          : '';
  if (address === '') return null;
  if (address.startsWith('data:')) return `data: ${address.length} ${digest(address)}`;
  // The same site at another address shows the same.
  const bare = bareAddress(address);
  return bare.startsWith(`${location.origin}/`) ? bare.slice(location.origin.length) : bare;
}
