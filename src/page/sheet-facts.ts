import { frameDocument } from './find.js';

/** What can be known of computed styles before they are read. */
export interface SheetFacts {
  /** Every property that a style sheet or style attribute names. */
  readonly properties: ReadonlySet<string>;
  /** Elements that some rule may make a pseudo-element of; null where a selector could not be followed. */
  readonly hosts: ReadonlySet<Element> | null;
  /** By property: the elements without a style attribute that some rule may set it on; not there where that can't be known. */
  readonly setOn: ReadonlyMap<string, ReadonlySet<Element>>;
}

/** Selecting what more rules than this name costs more than reading the property of every element. */
const MOST_SELECTORS = 12;

/** What scripts move and fade things with. */
const ANIMATED = ['opacity', 'transform', 'filter', 'translate', 'rotate', 'scale', 'clip-path'];
const PSEUDO = /::?(?:before|after)\b/;

/** What the rules say of some properties: the selectors that name each; null where one can't be followed. */
type Namings = Map<string, Set<string> | null>;

/**
 * Null where it can't be known: a sheet of another origin, a frame.
 * @param followed properties that are not inherited, of which `setOn` is wanted
 */
export function sheetFacts(document: Document, followed: readonly string[]): SheetFacts | null {
  const properties = new Set<string>();
  const setOn = new Map<string, Set<Element>>();
  const unfollowed = new Set<string>();
  const hosts = new Set<Element>();
  let isFollowed = true;
  const roots: (Document | ShadowRoot)[] = [document];
  for (const root of roots) {
    const selectors = new Set<string>();
    const namings: Namings = new Map(followed.map((property) => [property, new Set()]));
    try {
      for (const sheet of [...root.styleSheets, ...root.adoptedStyleSheets])
        walk(sheet.cssRules, properties, selectors, namings);
    } catch {
      return null;
    }
    for (const [property, named] of namings) {
      const elements = setOn.get(property) ?? new Set();
      setOn.set(property, elements);
      if (!named || named.size > MOST_SELECTORS || !addMatches(root, named, elements))
        unfollowed.add(property);
    }
    for (const element of root.querySelectorAll('*')) {
      if (element.shadowRoot) roots.push(element.shadowRoot);
      if (element.localName === 'iframe' && frameDocument(element)) return null;
      // Quotation marks are the browser's own pseudo-elements.
      if (element.localName === 'q') hosts.add(element);
      if (element.hasAttribute('style'))
        for (const property of (element as HTMLElement).style) properties.add(property);
    }
    isFollowed &&= addMatches(root, selectors, hosts);
  }
  // Scripts animate without a style sheet, and old attributes align and paint.
  const others = [
    ...(document.getAnimations().length > 0 ? ANIMATED : []),
    ...(document.querySelector('[align]') ? ['float'] : []),
    ...(document.querySelector('[background]') ? ['background-image'] : []),
  ];
  for (const property of others) properties.add(property);
  for (const property of [...others, ...unfollowed]) setOn.delete(property);
  return { properties, hosts: isFollowed ? hosts : null, setOn };
}

/** @param selectors where those of rules go that give a pseudo-element its content */
function walk(
  rules: CSSRuleList,
  properties: Set<string>,
  selectors: Set<string>,
  namings: Namings,
  isPlain = true,
): void {
  for (const rule of rules) {
    if ('style' in rule) {
      const { style } = rule as CSSStyleRule;
      const selector = isPlain && 'selectorText' in rule ? (rule as CSSStyleRule).selectorText : null;
      for (const property of style) {
        properties.add(property);
        const named = namings.get(property);
        if (!named) continue;
        // Of a keyframe, a nested or a scoped rule the selector alone does not say what it is about.
        if (selector === null) namings.set(property, null);
        else named.add(selector);
      }
      if ('selectorText' in rule && style.getPropertyValue('content') !== '') {
        const { selectorText } = rule as CSSStyleRule;
        // What a nested rule is about depends on the rules round it.
        if (rule.parentRule && 'selectorText' in rule.parentRule) selectors.add('*');
        else if (PSEUDO.test(selectorText)) selectors.add(selectorText);
      }
    }
    if ('styleSheet' in rule && (rule as CSSImportRule).styleSheet)
      walk((rule as CSSImportRule).styleSheet!.cssRules, properties, selectors, namings, isPlain);
    if ('cssRules' in rule) {
      const isGroup = isPlain && !('style' in rule) && !/Scope|Keyframes/.test(rule.constructor.name);
      walk((rule as CSSGroupingRule).cssRules, properties, selectors, namings, isGroup);
    }
  }
}

/** Whether every selector could be followed to its elements. */
function addMatches(
  root: Document | ShadowRoot,
  selectors: ReadonlySet<string>,
  matches: Set<Element>,
): boolean {
  for (const selector of selectors) {
    if (/:(host|slotted|part|scope)\b|&/.test(selector)) return false;
    const of = selector
      .replace(/(^|[\s>+~,(])::?(?:before|after)\b/g, '$1*')
      .replace(/::?(?:before|after)\b/g, '');
    try {
      for (const element of root.querySelectorAll(of)) matches.add(element);
    } catch {
      return false;
    }
  }
  return true;
}
