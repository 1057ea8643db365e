/** A media query that does not hold at this width, though its rules are about given elements. */
export interface IdleMedia {
  readonly condition: string;
  /** Of its first rule about one of the elements. */
  readonly selector: string;
  readonly property: string;
  readonly value: string;
  /** The style sheet's address; null for a style element. */
  readonly sheet: string | null;
  /** Rules of the same selector that stand before this one in the sheet. */
  readonly before: number;
}

const WIDTH = /\b(?:(?:min|max)-)?width\b/;
const MOST = 8;

/** The media queries about the width that do not hold, each once, whose rules are about one of the elements. */
export function idleMedia(elements: readonly (Element | null)[]): IdleMedia[] {
  const found = new Map<string, IdleMedia>();
  for (const sheet of document.styleSheets) {
    const met = new Map<string, number>();
    const walk = (rules: CSSRuleList, condition: string | null) => {
      for (const rule of rules) {
        if (found.size >= MOST) return;
        if (rule instanceof CSSMediaRule) {
          const { mediaText } = rule.media;
          const isIdle =
            WIDTH.test(mediaText) && !/print|hover/.test(mediaText) && !matchMedia(mediaText).matches;
          walk(rule.cssRules, isIdle ? mediaText : condition);
        } else if (rule instanceof CSSStyleRule) {
          const { selectorText: selector, style } = rule;
          const before = met.get(selector) ?? 0;
          met.set(selector, before + 1);
          if (condition === null || found.has(condition) || style.length === 0) continue;
          if (!elements.some((element) => element?.matches(selector))) continue;
          const property = style[0]!;
          const value = style.getPropertyValue(property);
          found.set(condition, { condition, selector, property, value, sheet: sheet.href, before });
        } else if ('cssRules' in rule) walk((rule as CSSGroupingRule).cssRules, condition);
      }
    };
    try {
      walk(sheet.cssRules, null);
    } catch {
      // A sheet of another origin can't be read.
    }
  }
  return [...found.values()];
}

/** Puts the rules of a media query in force, wherever it stands, until what it returns is called. */
export function withMedia(condition: string): () => void {
  const changed: CSSMediaRule[] = [];
  const walk = (rules: CSSRuleList) => {
    for (const rule of rules) {
      if (rule instanceof CSSMediaRule && rule.media.mediaText === condition) changed.push(rule);
      if ('cssRules' in rule) walk((rule as CSSGroupingRule).cssRules);
    }
  };
  for (const sheet of document.styleSheets) {
    try {
      walk(sheet.cssRules);
    } catch {
      continue;
    }
  }
  for (const rule of changed) rule.media.mediaText = 'all';
  return () => {
    for (const rule of changed) rule.media.mediaText = condition;
  };
}
