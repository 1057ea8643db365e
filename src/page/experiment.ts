/** The elements of the snapshot that was collected last, by their row. */
let rows: readonly (Element | null)[] = [];
const changed: { element: HTMLElement; style: string | null }[] = [];

export function rememberRows(elements: readonly (Element | null)[]): void {
  rows = elements;
}

/** The element of a row of the last snapshot; null for pseudo-elements. */
export function elementOf(node: number): Element | null {
  return rows[node] ?? null;
}

/** Puts styles on an element, over everything else, until `takeBack`. */
export function putOn(node: number, styles: Readonly<Record<string, string>>): void {
  const element = elementOf(node) as HTMLElement | null;
  if (!element?.isConnected) return;
  changed.push({ element, style: element.getAttribute('style') });
  // What is measured is the end of a change, not its beginning.
  for (const [property, value] of Object.entries({ ...styles, transition: 'none' })) {
    element.style.setProperty(property, value, 'important');
  }
}

export function takeBack(): void {
  for (const { element, style } of changed.splice(0).reverse()) {
    if (style === null) element.removeAttribute('style');
    else element.setAttribute('style', style);
  }
}
