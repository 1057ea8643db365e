import type { StyleIndex } from './style-index.js';

/** Lengths that are shares of the window or of a container, and values that ask about them (CSS Values 4, section 6.1; CSS Values 5). */
const OF_WINDOW =
  /\d(?:[sld]?v(?:w|h|i|b|min|max)|cq(?:w|h|i|b|min|max))\b|\b(?:env|if|random|anchor|anchor-size)\(/i;
/** Lengths that are multiples of a font's. */
const OF_FONT = /\d(?:r?(?:em|ex|ch|ic|lh|cap))\b/i;
const VARIABLE = 'var(';

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
  let isVariable = false;
  const add = (asks: (value: string) => boolean) => {
    for (const { style, text } of written) {
      if (!asks(text)) continue;
      for (const property of style) {
        const value = style.getPropertyValue(property);
        // What a shorthand takes from a variable can't be said of its parts.
        if (value !== '' && !asks(value)) continue;
        if (property.startsWith('--')) isVariable = true;
        else varying.add(property);
      }
    }
  };
  add((value) => OF_WINDOW.test(value));
  const byVariable = () => isVariable && add((value) => value.includes(VARIABLE));
  byVariable();
  if (varying.has('font-size')) {
    varying.add('line-height');
    add((value) => OF_FONT.test(value));
    byVariable();
  }
  for (const { style, text } of written)
    if (text.includes('padding') && text.includes('%'))
      for (const property of style)
        if (property.startsWith('padding') && style.getPropertyValue(property).includes('%'))
          varying.add(property);
  return varying;
}
