import type { Protocol } from 'puppeteer-core';

export interface FoundDeclaration {
  readonly name: string;
  readonly value: string;
  /** Null for a style attribute. */
  readonly selector: string | null;
  readonly styleSheetId: string | undefined;
  /** Place in the style sheet, from 0. */
  readonly range: { readonly line: number; readonly column: number } | null;
}

/** Shorthands that set a property as well. */
const SHORTHANDS: Readonly<Record<string, readonly string[]>> = {
  'flex-shrink': ['flex'],
  'flex-basis': ['flex'],
  'flex-wrap': ['flex-flow'],
  'overflow-x': ['overflow'],
  'overflow-y': ['overflow'],
  left: ['inset', 'inset-inline', 'inset-inline-start'],
  right: ['inset', 'inset-inline', 'inset-inline-end'],
  top: ['inset', 'inset-block', 'inset-block-start'],
  bottom: ['inset', 'inset-block', 'inset-block-end'],
  'margin-left': ['margin', 'margin-inline', 'margin-inline-start'],
  'margin-right': ['margin', 'margin-inline', 'margin-inline-end'],
  'margin-top': ['margin', 'margin-block', 'margin-block-start'],
  'margin-bottom': ['margin', 'margin-block', 'margin-block-end'],
  'line-height': ['font'],
  'grid-template-columns': ['grid-template', 'grid'],
  width: ['inline-size'],
  'min-width': ['min-inline-size'],
  height: ['block-size'],
  'max-height': ['max-block-size'],
};

/**
 * The declaration that wins for a property, of what the browser says matches an element (CSS Cascade 5): important ones
 * first, then the style attribute, then the later of the rules, which the browser lists in rising order.
 */
export function declarationIn(
  matched: Pick<Protocol.CSS.GetMatchedStylesForNodeResponse, 'matchedCSSRules' | 'inlineStyle'>,
  property: string,
): FoundDeclaration | null {
  const names = [property, ...(SHORTHANDS[property] ?? [])];
  const found: (FoundDeclaration & { important: boolean })[] = [];
  const look = (style: Protocol.CSS.CSSStyle, selector: string | null) => {
    for (const entry of style.cssProperties) {
      if (!names.includes(entry.name) || entry.disabled === true || entry.parsedOk === false) continue;
      // Longhands that the browser derives from a shorthand have no place of their own.
      if (entry.range === undefined && selector !== null) continue;
      found.push({
        name: entry.name,
        value: entry.value,
        selector,
        styleSheetId: style.styleSheetId,
        range: entry.range ? { line: entry.range.startLine, column: entry.range.startColumn } : null,
        important: entry.important === true,
      });
    }
  };
  for (const { rule } of matched.matchedCSSRules ?? []) {
    if (rule.origin === 'regular') look(rule.style, rule.selectorList.text);
  }
  if (matched.inlineStyle) look(matched.inlineStyle, null);
  const winner = found.filter(({ important }) => important).at(-1) ?? found.at(-1);
  return winner ?? null;
}
