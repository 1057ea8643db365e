import { findIn } from './find.js';
import { perSheets } from './style-index.js';
import { childrenOf, parentElementOf } from './own-accessors.js';

/** What is shown while the pointer rests on something else, and in no other way that style sheets tell of. */
export interface HoverReveal {
  readonly shown: Element;
  readonly hovered: Element;
}

/** How a declaration can bring out what is hidden, by property: what its value must be, and what the element's is now. */
const WAYS: Readonly<
  Record<string, { shows: (value: string) => boolean; hides: (value: string) => boolean }>
> = {
  display: { shows: (value) => value !== 'none', hides: (value) => value === 'none' },
  visibility: { shows: (value) => value === 'visible', hides: (value) => value === 'hidden' },
  opacity: { shows: (value) => Number.parseFloat(value) > 0, hides: (value) => value === '0' },
};

/** A state that a finger, a key or a script can bring about: a rule for it is another way. */
const STATES =
  /:(focus|focus-within|focus-visible|active|checked|target|target-within|open|popover-open|modal)\b/g;
const MOST_RULES = 20_000;
const MOST_REVEALS = 500;
const MOST_MS = 500;

/** One selector of a rule that would bring out what is hidden. */
interface RevealingPart {
  readonly selector: string;
  readonly property: string;
  readonly media: readonly MediaList[];
  readonly isOfHovering: boolean;
}

const revealing = perSheets(({ rules }): { parts: readonly RevealingPart[]; isCut: boolean } => {
  const supported = rules.filter(({ isSupported, isOfOrigin }) => isSupported && isOfOrigin);
  const parts: RevealingPart[] = [];
  for (const rule of supported.slice(0, MOST_RULES)) {
    const { style, media } = rule;
    for (const [property, { shows }] of Object.entries(WAYS)) {
      const value = style.getPropertyValue(property);
      if (value === '' || !shows(value)) continue;
      for (const selector of partsOf(rule.selector)) {
        if (/:hover\b/.test(subjectOf(selector).subject)) continue;
        parts.push({ selector, property, media, isOfHovering: /:hover\b/.test(selector) });
      }
    }
  }
  return { parts, isCut: supported.length > MOST_RULES };
});

/**
 * Elements that only a `:hover` rule would show (CSS Selectors 4, section 9.2). Left out are those that another rule shows
 * in another state, and those whose hovered element says that it opens something: a script does it.
 * @param leave is told how many rules were not looked at, where there were too many
 */
export function hoverReveals(
  document: Document,
  leave: (what: string, count: number) => void,
): HoverReveal[] {
  const { parts, isCut } = revealing(document);
  if (isCut) leave('style rules past the first 20,000, about hovering', 1);
  const inForce = parts.filter(({ media }) => media.every(isForPointer));
  const hover = inForce.filter(({ isOfHovering }) => isOfHovering);
  const others: Record<string, string[]> = Object.fromEntries(Object.keys(WAYS).map((name) => [name, []]));
  for (const { property, selector, isOfHovering } of inForce)
    if (!isOfHovering) others[property]!.push(selector);
  const found = new Map<Element, Element>();
  const until = performance.now() + MOST_MS;
  for (const [at, { selector, property }] of hover.entries()) {
    if (found.size >= MOST_REVEALS || performance.now() > until) {
      leave('style rules about hovering', hover.length - at);
      break;
    }
    const way = WAYS[property]!;
    for (const shown of findIn(document, selector.replace(/:hover\b/g, ''))) {
      if (found.has(shown) || !way.hides(getComputedStyle(shown).getPropertyValue(property))) continue;
      if (others[property]!.some((other) => mayShow(other, shown))) continue;
      const hovered = hoveredOf(selector, shown);
      if (hovered && !saysItOpens(hovered, shown)) found.set(shown, hovered);
    }
  }
  return [...found].map(([shown, hovered]) => ({ shown, hovered }));
}

/** Where nothing hovers, rules for a pointer that does still tell what it would show. */
function isForPointer({ mediaText }: MediaList): boolean {
  return /hover|pointer/.test(mediaText) || matchMedia(mediaText).matches;
}

/** The selectors of a list; commas inside brackets don't part them. */
function partsOf(list: string): string[] {
  const parts: string[] = [];
  let depth = 0;
  let start = 0;
  for (let at = 0; at <= list.length; at++) {
    const char = list[at];
    if (char === '(' || char === '[') depth++;
    else if (char === ')' || char === ']') depth--;
    if (at === list.length || (char === ',' && depth === 0)) {
      parts.push(list.slice(start, at).trim());
      start = at + 1;
    }
  }
  return parts;
}

/** The last compound of a selector, which is what it is about, and what stands before it. */
function subjectOf(selector: string): { readonly before: string; readonly subject: string } {
  let depth = 0;
  for (let at = selector.length - 1; at >= 0; at--) {
    const char = selector[at]!;
    if (char === ')' || char === ']') depth++;
    else if (char === '(' || char === '[') depth--;
    else if (depth === 0 && /[\s>+~]/.test(char))
      return { before: selector.slice(0, at + 1), subject: selector.slice(at + 1) };
  }
  return { before: '', subject: selector };
}

/** Whether a rule would show the element in some state of it or of what it stands in. */
function mayShow(selector: string, element: Element): boolean {
  const { before, subject } = subjectOf(selector.replace(STATES, ''));
  const bare = subject.replace(/^[a-z][\w-]*/i, '');
  const names = bare.match(/[.#][\w-]+/g) ?? [];
  try {
    // Another state: a class, an attribute or an ancestor that is not there now.
    if (names.length > 0) return names.some((name) => element.matches(name));
    return before !== '' && element.matches(subject === '' ? '*' : subject) && !element.matches(selector);
  } catch {
    return true;
  }
}

/** The element that has to be hovered: the nearest that matches what `:hover` stands on. */
function hoveredOf(selector: string, shown: Element): Element | null {
  const upTo = selector.slice(0, selector.lastIndexOf(':hover')).replace(/:hover\b/g, '');
  const test = upTo === '' || /[\s>+~]$/.test(upTo) ? `${upTo}*` : upTo;
  try {
    for (let at = parentElementOf(shown); at; at = parentElementOf(at)) {
      if (at.matches(test)) return at;
      for (const child of childrenOf(at)) if (child !== shown && child.matches(test)) return child;
    }
  } catch {
    return null;
  }
  return null;
}

function saysItOpens(hovered: Element, shown: Element): boolean {
  const says = '[aria-expanded], [aria-haspopup], [aria-controls], [popovertarget], [data-toggle], summary';
  if (hovered.matches(says) || hovered.closest('details')) return true;
  return [...hovered.querySelectorAll(says)].some((element) => !shown.contains(element));
}
