import { elementOf, generatedOf } from './identity.js';

const changed: { element: Element; attribute: string; value: string | null }[] = [];
let sheet: CSSStyleSheet | null = null;

/** Marks an element for the rules that are put on its pseudo-elements. */
const MARK = 'data-isoptic-trial';

/** Puts styles on an element or pseudo-element, over everything else, until `takeBack`. */
export function putOn(uid: number, styles: Readonly<Record<string, string>>): void {
  const element = elementOf(uid);
  const which = generatedOf(uid);
  if (!element?.isConnected) return;
  const attribute = which === null ? 'style' : MARK;
  changed.push({ element, attribute, value: element.getAttribute(attribute) });
  // What is measured is the end of a change, not its beginning.
  const all = Object.entries({ ...styles, transition: 'none' });
  if (which === null) {
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
  sheet.insertRule(`[${MARK}]${which} { ${declarations} }`);
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
