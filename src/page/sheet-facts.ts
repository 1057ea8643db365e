import { frameDocument } from './find.js';

/** What can be known of computed styles before they are read. */
export interface SheetFacts {
  /** Every property that a style sheet or style attribute names. */
  readonly properties: ReadonlySet<string>;
  /** Elements that some rule may make a pseudo-element of; null where a selector could not be followed. */
  readonly hosts: ReadonlySet<Element> | null;
}

/** What scripts move and fade things with. */
const ANIMATED = ['opacity', 'transform', 'filter', 'translate', 'rotate', 'scale', 'clip-path'];
const PSEUDO = /::?(?:before|after)\b/;

/** Null where it can't be known: a sheet of another origin, a frame. */
export function sheetFacts(document: Document): SheetFacts | null {
  const properties = new Set<string>();
  const hosts = new Set<Element>();
  let isFollowed = true;
  const roots: (Document | ShadowRoot)[] = [document];
  for (const root of roots) {
    const selectors = new Set<string>();
    try {
      for (const sheet of [...root.styleSheets, ...root.adoptedStyleSheets])
        walk(sheet.cssRules, properties, selectors);
    } catch {
      return null;
    }
    for (const element of root.querySelectorAll('*')) {
      if (element.shadowRoot) roots.push(element.shadowRoot);
      if (element.localName === 'iframe' && frameDocument(element)) return null;
      // Quotation marks are the browser's own pseudo-elements.
      if (element.localName === 'q') hosts.add(element);
      if (element.hasAttribute('style'))
        for (const property of (element as HTMLElement).style) properties.add(property);
    }
    isFollowed &&= addHosts(root, selectors, hosts);
  }
  // Scripts animate without a style sheet, and old attributes align and paint.
  if (document.getAnimations().length > 0) for (const property of ANIMATED) properties.add(property);
  if (document.querySelector('[align]')) properties.add('float');
  if (document.querySelector('[background]')) properties.add('background-image');
  return { properties, hosts: isFollowed ? hosts : null };
}

/** @param selectors where those of rules go that give a pseudo-element its content */
function walk(rules: CSSRuleList, properties: Set<string>, selectors: Set<string>): void {
  for (const rule of rules) {
    if ('style' in rule) {
      const { style } = rule as CSSStyleRule;
      for (const property of style) properties.add(property);
      if ('selectorText' in rule && style.getPropertyValue('content') !== '') {
        const { selectorText } = rule as CSSStyleRule;
        // What a nested rule is about depends on the rules round it.
        if (rule.parentRule && 'selectorText' in rule.parentRule) selectors.add('*');
        else if (PSEUDO.test(selectorText)) selectors.add(selectorText);
      }
    }
    if ('styleSheet' in rule && (rule as CSSImportRule).styleSheet)
      walk((rule as CSSImportRule).styleSheet!.cssRules, properties, selectors);
    if ('cssRules' in rule) walk((rule as CSSGroupingRule).cssRules, properties, selectors);
  }
}

/** Whether every selector could be followed to its elements. */
function addHosts(root: Document | ShadowRoot, selectors: ReadonlySet<string>, hosts: Set<Element>): boolean {
  for (const selector of selectors) {
    if (/:(host|slotted|part)\b|^&/.test(selector)) return false;
    const of = selector
      .replace(/(^|[\s>+~,(])::?(?:before|after)\b/g, '$1*')
      .replace(/::?(?:before|after)\b/g, '');
    try {
      for (const element of root.querySelectorAll(of)) hosts.add(element);
    } catch {
      return false;
    }
  }
  return true;
}
