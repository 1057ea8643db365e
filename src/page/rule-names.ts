import type { StyleIndex } from './style-index.js';

/** What the rules of a document or shadow tree name. */
export interface RuleNames {
  /** Every property that some rule names. */
  readonly properties: ReadonlySet<string>;
  /** Selectors of the rules that give a pseudo-element its content. */
  readonly generating: ReadonlySet<string>;
  /** The selectors of the rules that name what was followed; null where they are too many, or one says nothing without what stands round it. */
  readonly selectorsOf: (name: string) => ReadonlySet<string> | null;
}

const PSEUDO = /::?(?:before|after)\b/;

/**
 * @param followed names, each with the properties that it stands for
 * @param most a name that more selectors than this set is not followed
 */
export function ruleNames(
  { rules, bound }: StyleIndex,
  followed: Readonly<Record<string, readonly string[]>>,
  most: number,
): RuleNames {
  const properties = new Set<string>();
  const generating = new Set<string>();
  const named = new Map<string, Set<string> | null>();
  const namesOfProperty = new Map<string, string[]>();
  for (const [name, members] of Object.entries(followed)) {
    named.set(name, new Set());
    for (const property of members)
      namesOfProperty.set(property, [...(namesOfProperty.get(property) ?? []), name]);
  }

  /** @param selector of the rule; null where it alone does not say what the rule is about */
  const note = (style: CSSStyleDeclaration, selector: (() => string) | null) => {
    for (let at = 0; at < style.length; at++) {
      const property = style.item(at);
      properties.add(property);
      const names = namesOfProperty.get(property);
      if (names) for (const name of names) follow(name, selector);
    }
  };
  const follow = (name: string, selector: (() => string) | null) => {
    const selectors = named.get(name);
    if (!selectors) return;
    if (selector === null || selectors.size > most) named.set(name, null);
    else selectors.add(selector());
  };

  for (const rule of rules) {
    note(rule.style, rule.isPlain ? () => rule.selectorText : null);
    if (rule.style.getPropertyValue('content') === '') continue;
    if (!rule.isPlain) generating.add('*');
    else if (PSEUDO.test(rule.selectorText)) generating.add(rule.selectorText);
  }
  for (const { style, isOfElements, hasSelector } of bound) {
    if (isOfElements) note(style, null);
    else for (const property of style) properties.add(property);
    if (hasSelector && style.getPropertyValue('content') !== '') generating.add('*');
  }
  return { properties, generating, selectorsOf: (name) => named.get(name) ?? null };
}

/** A selector of pseudo-elements, as one of the elements that they are made of. */
export function ofHosts(selector: string): string {
  return selector.replace(/(^|[\s>+~,(])::?(?:before|after)\b/g, '$1*').replace(/::?(?:before|after)\b/g, '');
}
