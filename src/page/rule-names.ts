/** What the rules of a document or shadow tree name. */
export interface RuleNames {
  /** Every property that some rule names. */
  readonly properties: ReadonlySet<string>;
  /** Selectors of the rules that give a pseudo-element its content. */
  readonly generating: ReadonlySet<string>;
  /** The selectors of the rules that name what was followed; null where one says nothing without what stands round it. */
  readonly selectorsOf: (name: string) => ReadonlySet<string> | null;
}

const PSEUDO = /::?(?:before|after)\b/;

/**
 * @param followed names, each with the properties that it stands for
 * @throws where a style sheet can't be read
 */
export function namesOf(
  root: Document | ShadowRoot,
  followed: Readonly<Record<string, readonly string[]>>,
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
  const note = (style: CSSStyleDeclaration, selector: string | null) => {
    for (const property of style) {
      properties.add(property);
      for (const name of namesOfProperty.get(property) ?? []) {
        if (selector === null) named.set(name, null);
        else named.get(name)?.add(selector);
      }
    }
  };

  /** @param isPlain whether a selector means the same here as at the top of a sheet */
  const walk = (rules: CSSRuleList, isPlain: boolean) => {
    for (const rule of rules) {
      if (rule instanceof CSSKeyframesRule) {
        // What moves is known by its animation.
        for (const frame of rule.cssRules)
          for (const property of (frame as CSSKeyframeRule).style) properties.add(property);
        continue;
      }
      if (rule instanceof CSSFontFaceRule) continue;
      if ('style' in rule) {
        const { style, selectorText = null } = rule as { style: CSSStyleDeclaration; selectorText?: string };
        note(style, isPlain ? selectorText : null);
        if (selectorText !== null && style.getPropertyValue('content') !== '') {
          if (!isPlain) generating.add('*');
          else if (PSEUDO.test(selectorText)) generating.add(selectorText);
        }
      }
      if (rule instanceof CSSImportRule && rule.styleSheet) walk(rule.styleSheet.cssRules, isPlain);
      if ('cssRules' in rule) {
        const isGroup = !('style' in rule) && rule.constructor.name !== 'CSSScopeRule';
        walk((rule as CSSGroupingRule).cssRules, isPlain && isGroup);
      }
    }
  };
  for (const sheet of [...root.styleSheets, ...root.adoptedStyleSheets]) walk(sheet.cssRules, true);
  return { properties, generating, selectorsOf: (name) => named.get(name) ?? null };
}

/**
 * Adds every element that one of the selectors matches. Whether all of them could be followed.
 * @param seen what was asked of the root before
 */
export function addMatches(
  root: Document | ShadowRoot,
  selectors: Iterable<string>,
  matches: Set<Element>,
  seen: Map<string, readonly Element[] | null>,
): boolean {
  for (const selector of selectors) {
    let found = seen.get(selector);
    if (found === undefined) seen.set(selector, (found = matchesOf(root, selector)));
    if (found === null) return false;
    for (const element of found) matches.add(element);
  }
  return true;
}

/** A selector of pseudo-elements, as one of the elements that they are made of. */
export function ofHosts(selector: string): string {
  return selector.replace(/(^|[\s>+~,(])::?(?:before|after)\b/g, '$1*').replace(/::?(?:before|after)\b/g, '');
}

function matchesOf(root: Document | ShadowRoot, selector: string): readonly Element[] | null {
  if (/:(host|slotted|part|scope)\b|&/.test(selector)) return null;
  try {
    return [...root.querySelectorAll(selector)];
  } catch {
    return null;
  }
}
