import { selectAll, type Options } from 'css-select';
import { KIND_ELEMENT } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** An element of a snapshot as the selector engine sees it. */
interface Element {
  readonly node: NodeIndex;
}

/**
 * The elements of a layout that a selector matches, in the order of the page, by what a layout knows of them: tags, ids, classes and
 * places. A selector that needs attributes finds nothing; `>>>` steps into a shadow root or a frame.
 * @throws Error when it is no selector
 */
export function query(view: SnapshotView, selector: string): NodeIndex[] {
  const elements = Array.from({ length: view.count }, (_, node): Element => ({ node }));
  const isElement = (node: NodeIndex) => view.snapshot.nodes.kind[node] === KIND_ELEMENT;
  const { scope, treeParent } = view.snapshot.nodes;
  const children: Element[][] = elements.map(() => []);
  const roots = new Map<NodeIndex, Element[]>();
  for (const element of elements) {
    const { node } = element;
    if (!isElement(node)) continue;
    const parent = treeParent[node]!;
    if (parent >= 0) children[parent]!.push(element);
    else roots.set(scope[node]!, [...(roots.get(scope[node]!) ?? []), element]);
  }
  const siblingsOf = ({ node }: Element): Element[] =>
    treeParent[node]! >= 0 ? children[treeParent[node]!]! : (roots.get(scope[node]!) ?? []);
  const attribute = ({ node }: Element, name: string): string | undefined => {
    if (name === 'id') return view.id(node) || undefined;
    if (name === 'class') return view.classes(node).join(' ') || undefined;
    return undefined;
  };
  const options: Options<Element, Element> = {
    xmlMode: true,
    adapter: {
      isTag: (element): element is Element => element.node >= 0,
      getName: ({ node }) => view.tag(node),
      getChildren: ({ node }) => children[node]!,
      getParent: ({ node }) => (treeParent[node]! >= 0 ? elements[treeParent[node]!]! : null),
      getSiblings: siblingsOf,
      getAttributeValue: attribute,
      hasAttrib: (element, name) => attribute(element, name) !== undefined,
      getText: () => '',
      removeSubsets: (all) => all,
      existsOne: () => false,
    } as Options<Element, Element>['adapter'] & object,
  };
  let within: readonly NodeIndex[] = [-1];
  for (const part of selector.split('>>>')) {
    const from = within.flatMap((host) => roots.get(host) ?? []);
    within = selectAll(part.trim(), from, options).map(({ node }) => node);
  }
  return [...within].sort((a, b) => a - b);
}
