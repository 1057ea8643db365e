/** By a style sheet of another origin, which nothing in a page can read: one that holds what the browser says is written in it. */
const standIns = new WeakMap<CSSStyleSheet, CSSStyleSheet>();

/** A style sheet as it was written. */
export interface WrittenSheet {
  readonly address: string;
  readonly css: string;
}

/** The rules of a sheet; null where neither the page nor the browser told them. */
export function rulesIn(sheet: CSSStyleSheet): CSSRuleList | null {
  try {
    return sheet.cssRules;
  } catch {
    return standIns.get(sheet)?.cssRules ?? null;
  }
}

export function isHanded(sheet: CSSStyleSheet): boolean {
  return standIns.has(sheet);
}

/** Makes what is written in sheets known that the page itself can't read. */
export function handOver(sheets: readonly CSSStyleSheet[], written: readonly WrittenSheet[]): void {
  const byAddress = new Map(written.map(({ address, css }) => [address, css]));
  for (const sheet of sheets) {
    const css = byAddress.get(sheet.href ?? '');
    // A sheet that is made by script takes no imports, so what these say would still be unknown.
    if (css === undefined || /@import/i.test(css)) continue;
    const standIn = new CSSStyleSheet();
    standIn.replaceSync(css);
    standIns.set(sheet, standIn);
  }
}
