/** A style rule with what it stands in. */
export interface FoundRule {
  readonly style: CSSStyleDeclaration;
  /** As it would stand by itself: the selectors of the rules round it are put in. */
  readonly selector: string;
  /** As it is written. */
  readonly selectorText: string;
  /** The media queries that it stands in, the outermost first, those of imports too. */
  readonly media: readonly MediaList[];
  readonly sheet: CSSStyleSheet;
}

/** The style rules of a document that its own style sheets and those of its origin hold, in their order. */
export function* styleRules(document: Document): Generator<FoundRule> {
  for (const sheet of [...document.styleSheets, ...document.adoptedStyleSheets]) {
    if (!sheet.disabled) yield* rulesOf(sheet, sheet.media.length > 0 ? [sheet.media] : []);
  }
}

export function isInForce({ media }: FoundRule): boolean {
  return media.every(({ mediaText }) => matchMedia(mediaText).matches);
}

function* rulesOf(sheet: CSSStyleSheet, media: readonly MediaList[]): Generator<FoundRule> {
  let rules: CSSRuleList;
  try {
    rules = sheet.cssRules;
  } catch {
    // A sheet of another origin can't be read.
    return;
  }
  yield* within(rules, media, '', sheet);
}

function* within(
  rules: CSSRuleList,
  media: readonly MediaList[],
  around: string,
  sheet: CSSStyleSheet,
): Generator<FoundRule> {
  for (const rule of rules) {
    if (rule instanceof CSSImportRule) {
      if (rule.styleSheet) yield* rulesOf(rule.styleSheet, [...media, rule.media]);
    } else if (rule instanceof CSSMediaRule) {
      yield* within(rule.cssRules, [...media, rule.media], around, sheet);
    } else if (rule instanceof CSSStyleRule) {
      const { selectorText, style } = rule;
      const selector = around === '' ? selectorText : nested(selectorText, around);
      yield { style, selector, selectorText, media, sheet };
      if (rule.cssRules.length > 0) yield* within(rule.cssRules, media, selector, sheet);
    } else if (!(rule instanceof CSSSupportsRule) || CSS.supports(rule.conditionText)) {
      if ('cssRules' in rule) yield* within((rule as CSSGroupingRule).cssRules, media, around, sheet);
    }
  }
}

/** CSS Nesting 1, section 3: `&` stands for the selector of the rule round it, which begins a selector without one. */
function nested(selector: string, around: string): string {
  return selector.includes('&') ? selector.replaceAll('&', `:is(${around})`) : `:is(${around}) ${selector}`;
}
