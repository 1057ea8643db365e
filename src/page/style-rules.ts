import { perSheets, type FoundRule } from './style-index.js';

/** The style rules of a document that its own style sheets and those of its origin hold, in their order. */
export const styleRules: (document: Document) => readonly FoundRule[] = perSheets(({ rules }) =>
  rules.filter(({ isSupported, isOfOrigin }) => isSupported && isOfOrigin),
);

/** What makes room above an element. */
const MAKES_ROOM = ['scroll-margin-top', 'padding-top', 'border-top-width', 'margin-top'];

/** The rules that move an element clear of the edge once it is the target (CSS Selectors 4, section 8.3). */
export const roomRules: (document: Document) => readonly FoundRule[] = perSheets(({ rules }) =>
  rules.filter((rule) => {
    const names = (property: string) => rule.style.getPropertyValue(property) !== '';
    const hasRoom = MAKES_ROOM.some(names);
    const hasHeight = names('height');
    if (
      !rule.isSupported ||
      !rule.isOfOrigin ||
      !(hasRoom || hasHeight) ||
      !rule.selector.includes(':target')
    )
      return false;
    return /::?before/.test(rule.selector) ? hasHeight : hasRoom;
  }),
);

export function isInForce({ media }: FoundRule): boolean {
  return media.every(({ mediaText }) => matchMedia(mediaText).matches);
}
