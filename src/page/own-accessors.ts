/**
 * What an element itself says of some of its properties. A form's fields stand in for the form's own properties: with a field of
 * the name `children`, `form.children` is that field (HTML, section 4.10.3; Web IDL, LegacyOverrideBuiltIns).
 */
export const childrenOf = accessor<Element, HTMLCollection>(Element.prototype, 'children');
export const childNodesOf = accessor<Node, NodeListOf<ChildNode>>(Node.prototype, 'childNodes');
export const firstChildOf = accessor<Node, ChildNode | null>(Node.prototype, 'firstChild');
export const lastChildOf = accessor<Node, ChildNode | null>(Node.prototype, 'lastChild');
export const parentElementOf = accessor<Node, Element | null>(Node.prototype, 'parentElement');
export const idOf = accessor<Element, string>(Element.prototype, 'id');
const htmlStyleOf = accessor<HTMLElement, CSSStyleDeclaration>(HTMLElement.prototype, 'style');

/** The style attribute of an element of HTML, SVG or another language that has one. */
export function inlineStyleOf(element: Element): CSSStyleDeclaration {
  return element instanceof HTMLElement ? htmlStyleOf(element) : (element as SVGElement).style;
}

function accessor<Of, Value>(prototype: object, name: string): (of: Of) => Value {
  const get = Object.getOwnPropertyDescriptor(prototype, name)!.get!;
  return (of) => get.call(of) as Value;
}
