/* global pathOf */
// Mistakes in the style sheets that a page has: one declaration is forgotten, or its lengths are others. It holds for all elements that its
// selector matches, as when a developer writes it.

/**
 * Runs in a page: what its style sheets say of where things stand, of elements that show.
 * @returns one entry a declaration: `at` leads through the sheets' rules to the one that holds it, `path` is a selector of the first element
 * that it is said of
 */
export function declarations() {
  const said =
    /^(display|position|top|right|bottom|left|inset|(min-|max-)?(width|height|inline-size|block-size)|margin|padding|flex|grid|(row-|column-)?gap|column|float|clear|overflow|white-space|word-|line-height|font-size|font:|letter-spacing|text-indent|text-overflow|box-sizing|transform|aspect-ratio|object-fit|align-|justify-|vertical-align|clip|z-index|table-layout)/;
  const shown = (selector) => {
    let matched = [];
    try {
      matched = [...document.body.querySelectorAll(selector)];
    } catch {
      // Selectors of other browsers.
    }
    return matched.find((element) => {
      if (element.closest('svg, script, style, noscript, template')) return false;
      const rect = element.getBoundingClientRect();
      const isThere = rect.width >= 4 && rect.height >= 4 && rect.right > 0 && rect.left < innerWidth;
      return isThere && rect.y + scrollY < 6000 && element.checkVisibility({ visibilityProperty: true });
    });
  };
  const found = [];
  const walk = (rules, at) => {
    for (const [i, rule] of [...rules].entries()) {
      if (rule.selectorText !== undefined && rule.style.length > 0) {
        const names = [...rule.style.cssText.matchAll(/(?:^|;)\s*([a-z-]+):/g)].map(([, name]) => name);
        const fitting = names.filter((name) => said.test(name) && rule.style.getPropertyValue(name) !== '');
        const element = fitting.length > 0 ? shown(rule.selectorText) : undefined;
        for (const name of element ? fitting : [])
          found.push({
            at: [...at, i],
            selector: rule.selectorText,
            name,
            value: rule.style.getPropertyValue(name),
            path: pathOf(element),
          });
      } else if (rule.cssRules && rule.selectorText === undefined) walk(rule.cssRules, [...at, i]);
    }
  };
  for (const [i, sheet] of [...document.styleSheets].entries()) {
    try {
      walk(sheet.cssRules, [i]);
    } catch {
      // Of another origin: nobody can read it.
    }
  }
  return found;
}

const LENGTH = /(\d*\.?\d+)(px|rem|em|%|vw|vh)/g;

/**
 * What a declaration becomes by mistake.
 * @returns the script that plants it and how it is told
 */
export function mistaken({ at, selector, name, value }, random) {
  const isLength = new RegExp(LENGTH).test(value);
  const factor = random.pick([0.25, 0.5, 0.7, 1.4, 2, 3]);
  const isForgotten = random.next() < 0.5 || !isLength;
  const now = value.replace(LENGTH, (_, number, unit) => `${+(number * factor).toFixed(3)}${unit}`);
  const change = isForgotten
    ? `removeProperty(${JSON.stringify(name)})`
    : `setProperty(${JSON.stringify(name)}, ${JSON.stringify(now)}, rule.style.getPropertyPriority(${JSON.stringify(name)}))`;
  return {
    operator: isForgotten ? 'forgotten' : 'other-length',
    css: `${selector.slice(0, 80)} { ${name}: ${value} → ${isForgotten ? 'nothing' : now} }`,
    js: `{ let rule = document.styleSheets[${at[0]}]; for (const i of ${JSON.stringify(at.slice(1))}) rule = rule?.cssRules[i]; if (rule?.selectorText === ${JSON.stringify(selector)}) rule.style.${change}; }`,
  };
}
