/** A pseudo-element by the element that it stands in. */
export interface Generated {
  readonly host: Element;
  readonly which: '::before' | '::after';
}

/** The elements of the snapshot that was collected last, by their row; of pseudo-elements, what they are. */
let rows: readonly (Element | Generated | null)[] = [];
const changed: { element: Element; attribute: string; value: string | null }[] = [];
let sheet: CSSStyleSheet | null = null;

/** Marks an element for the rules that are put on its pseudo-elements. */
const MARK = 'data-isoptic-trial';

export function rememberRows(elements: readonly (Element | Generated | null)[]): void {
  rows = elements;
}

/** The element of a row of the last snapshot, of a pseudo-element the one that it stands in. */
export function elementOf(node: number): Element | null {
  const row = rows[node] ?? null;
  return row !== null && 'which' in row ? row.host : row;
}

/** Puts styles on an element or pseudo-element, over everything else, until `takeBack`. */
export function putOn(node: number, styles: Readonly<Record<string, string>>): void {
  const row = rows[node] ?? null;
  const element = elementOf(node);
  if (!row || !element?.isConnected) return;
  const isGenerated = 'which' in row;
  const attribute = isGenerated ? MARK : 'style';
  changed.push({ element, attribute, value: element.getAttribute(attribute) });
  // What is measured is the end of a change, not its beginning.
  const all = Object.entries({ ...styles, transition: 'none' });
  if (!isGenerated) {
    const { style } = element as HTMLElement;
    for (const [property, value] of all) style.setProperty(property, value, 'important');
    return;
  }
  element.setAttribute(MARK, '');
  if (!sheet) {
    sheet = new CSSStyleSheet();
    document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet];
  }
  const declarations = all.map(([property, value]) => `${property}: ${value} !important`).join('; ');
  sheet.insertRule(`[${MARK}]${row.which} { ${declarations} }`);
}

export function takeBack(): void {
  for (const { element, attribute, value } of changed.splice(0).reverse()) {
    if (value === null) element.removeAttribute(attribute);
    else element.setAttribute(attribute, value);
  }
  if (!sheet) return;
  document.adoptedStyleSheets = [...document.adoptedStyleSheets].filter((other) => other !== sheet);
  sheet = null;
}
