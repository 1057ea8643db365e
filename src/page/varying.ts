import type { StyleIndex } from './style-index.js';

/** Lengths that are shares of the window or of a container, and values that ask about them (CSS Values 4, section 6.1; CSS Values 5). */
const OF_WINDOW =
  /\d(?:[sld]?v(?:w|h|i|b|min|max)|cq(?:w|h|i|b|min|max))\b|\b(?:env|if|random|anchor|anchor-size)\(/i;
/** Lengths that are multiples of a font's. */
const OF_FONT = /\d(?:r?(?:em|ex|ch|ic|lh|cap))\b/i;
const VARIABLE = 'var(';
const SHARE = '%';

/** Whether declarations may have a say in what varies. */
export function mayVary({ cssText }: CSSStyleDeclaration): boolean {
  return (
    OF_WINDOW.test(cssText) ||
    OF_FONT.test(cssText) ||
    [VARIABLE, SHARE].some((part) => cssText.includes(part))
  );
}

/** At-rules that hold or say nothing that goes by the size of the window. Conditions on it are known to the index. */
const HARMLESS = new Set([
  'CSSLayerBlockRule',
  'CSSLayerStatementRule',
  'CSSSupportsRule',
  'CSSPropertyRule',
  'CSSScopeRule',
  'CSSNestedDeclarations',
  'CSSNamespaceRule',
  'CSSCounterStyleRule',
  'CSSPageRule',
  'CSSStartingStyleRule',
  'CSSFontFeatureValuesRule',
  'CSSFontPaletteValuesRule',
  'CSSViewTransitionRule',
]);

/**
 * The properties whose computed value some declaration has go by the size of the window, with the same rules in force: null where
 * any may. What the browser's own styles say is in multiples of the font's size at most.
 */
export function varyingProperties(
  { rules, bound, otherRules }: Pick<StyleIndex, 'rules' | 'bound' | 'otherRules'>,
  inline: readonly CSSStyleDeclaration[],
): ReadonlySet<string> | null {
  for (const name of otherRules) if (!HARMLESS.has(name)) return null;
  const written = [...rules.map(({ style }) => style), ...bound.map(({ style }) => style), ...inline].map(
    (style) => ({ style, text: style.cssText }),
  );
  const varying = new Set<string>();
  /** @param begins how the properties begin that it is asked of. @returns whether a variable has such a value */
  const add = (asks: (value: string) => boolean, begins: string): boolean => {
    let isInVariable = false;
    for (const { style, text } of written) {
      if (!asks(text)) continue;
      for (const property of style) {
        const isVariable = property.startsWith('--');
        if (!isVariable && !property.startsWith(begins)) continue;
        const value = style.getPropertyValue(property);
        // What a shorthand takes from a variable can't be said of its parts.
        if (value !== '' && !asks(value)) continue;
        if (isVariable) isInVariable = true;
        else varying.add(property);
      }
    }
    return isInVariable;
  };
  const addAll = (asks: (value: string) => boolean, begins = '') => {
    if (add(asks, begins)) add((value) => value.includes(VARIABLE), begins);
  };
  addAll((value) => OF_WINDOW.test(value));
  if (varying.has('font-size')) {
    varying.add('line-height');
    addAll((value) => OF_FONT.test(value));
  }
  // A share of the room round it is known as it is used only.
  addAll((value) => value.includes(SHARE), 'padding');
  return varying;
}
