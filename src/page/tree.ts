import { childNodesOf } from './own-accessors.js';
/** 1-based position of each element among those of its tag; elements that are the only one of theirs are left out. */
export function positionsByTag(siblings: ArrayLike<Element>): Map<Element, number> {
  const byTag = new Map<string, Element[]>();
  for (let i = 0; i < siblings.length; i++) {
    const element = siblings[i]!;
    const list = byTag.get(element.localName);
    if (list) list.push(element);
    else byTag.set(element.localName, [element]);
  }
  const positions = new Map<Element, number>();
  for (const list of byTag.values()) {
    if (list.length > 1) list.forEach((element, i) => positions.set(element, i + 1));
  }
  return positions;
}

/** The child nodes whose text is shown inside the element: of its shadow tree, of what is slotted, or its own. */
export function renderedChildNodes(element: Element, tag: string): Iterable<Node> {
  if (element.shadowRoot) return element.shadowRoot.childNodes;
  if (tag === 'slot') {
    const assigned = (element as HTMLSlotElement).assignedNodes();
    if (assigned.length > 0) return assigned;
  }
  return childNodesOf(element);
}
