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

/** One declaration: what it says, and the variables that it takes. */
interface Said {
  readonly property: string;
  readonly value: string;
  readonly takes: readonly string[];
}

const TAKEN = /var\(\s*(--[^\s,)]+)/g;

/** What a style says of each property. What a shorthand takes from a variable can't be said of its parts: all of the shorthand is. */
function* saidBy(style: CSSStyleDeclaration): Generator<Said> {
  const properties = [...style];
  let ofShorthands: string | undefined;
  for (const property of properties) {
    let value = style.getPropertyValue(property);
    if (value === '') value = ofShorthands ??= shorthandsOf(style, properties);
    const takes = Array.from(value.matchAll(TAKEN), ([, name]) => name!);
    yield { property, value, takes };
  }
}

/** The declarations of shorthands that take variables; all there are where none is told apart. */
function shorthandsOf({ cssText }: CSSStyleDeclaration, properties: readonly string[]): string {
  const longhands = new Set(properties);
  const found = cssText
    .split(';')
    .filter((part) => part.includes(VARIABLE) && !longhands.has(part.split(':')[0]!.trim()));
  return found.join(';') || cssText;
}

/**
 * The properties whose computed value some declaration has go by the size of the window, with the same rules in force: null where
 * any may. What the browser's own styles say is in multiples of the font's size at most.
 */
export function varyingProperties(
  { rules, bound, otherRules }: Pick<StyleIndex, 'rules' | 'bound' | 'otherRules'>,
  inline: readonly CSSStyleDeclaration[],
): ReadonlySet<string> | null {
  for (const name of otherRules) if (!HARMLESS.has(name)) return null;
  const styles = [...rules.map(({ style }) => style), ...bound.map(({ style }) => style), ...inline];
  const said = styles.filter(mayVary).flatMap((style) => [...saidBy(style)]);
  const variables = said.filter(({ property }) => property.startsWith('--'));
  const varying = new Set<string>();
  /** @param begins how the properties begin that it is asked of */
  const add = (asks: (value: string) => boolean, begins = '') => {
    const names = namesThatVary(variables, asks);
    for (const { property, value, takes } of said) {
      if (property.startsWith('--') || !property.startsWith(begins)) continue;
      if (asks(value) || takes.some((name) => names.has(name))) varying.add(property);
    }
  };
  add((value) => OF_WINDOW.test(value));
  if (varying.has('font-size')) {
    varying.add('line-height');
    add((value) => OF_FONT.test(value));
  }
  // A share of the room round it is known as it is used only.
  add((value) => value.includes(SHARE), 'padding');
  return varying;
}

/** The names of the variables that have such a value somewhere, or take one that has. */
function namesThatVary(variables: readonly Said[], asks: (value: string) => boolean): ReadonlySet<string> {
  const names = new Set<string>();
  let before = -1;
  while (names.size > before) {
    before = names.size;
    for (const { property, value, takes } of variables)
      if (asks(value) || takes.some((name) => names.has(name))) names.add(property);
  }
  return names;
}
