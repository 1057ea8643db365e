/**
 * What an element itself says of some of its properties. A form's fields stand in for the form's own properties: with a field of
 * the name `children`, `form.children` is that field (HTML, section 4.10.3; Web IDL, LegacyOverrideBuiltIns).
 */
export const childrenOf = accessor(Element.prototype, 'children');
export const childNodesOf = accessor(Node.prototype, 'childNodes');
export const lastChildOf = accessor(Node.prototype, 'lastChild');
export const parentElementOf = accessor(Node.prototype, 'parentElement');
export const idOf = accessor(Element.prototype, 'id');
const htmlStyleOf = accessor(HTMLElement.prototype, 'style');

/** The style attribute of an element of HTML, SVG or another language that has one. */
export function inlineStyleOf(element: Element): CSSStyleDeclaration {
  return element instanceof HTMLElement ? htmlStyleOf(element) : (element as SVGElement).style;
}

function accessor<Of extends object, Name extends keyof Of & string>(
  prototype: Of,
  name: Name,
): (of: Of) => Of[Name] {
  const property = Object.getOwnPropertyDescriptor(prototype, name);
  return (of) => property!.get!.call(of) as Of[Name];
}

/** What an element is shown in: its slot, its parent, or the host of its shadow tree; null of the root of a document (CSS Scoping 1, section 3.2). */
export function flatParentOf(element: Element): Element | null {
  const { host } = element.getRootNode() as Partial<ShadowRoot>;
  return element.assignedSlot ?? parentElementOf(element) ?? host ?? null;
}

/** An attribute of an element; null where it has none. */
export function attributeOf(element: Element, name: string): string | null {
  return Element.prototype.getAttribute.call(element, name);
}

/** All elements that stand in one. */
export function descendantsOf(element: Element): Element[] {
  const all = Array.from(childrenOf(element));
  for (const each of all) all.push(...childrenOf(each));
  return all;
}
