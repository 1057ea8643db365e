/** A pseudo-element of which the DOM does not tell all: its row, and where the element that it stands in is. */
export interface Untold {
  readonly node: number;
  /** Its place among all elements of its own tree, after those of the hosts and frames that the tree stands in. */
  readonly path: readonly number[];
}

/** A page with more of them is asked for the first ones. */
const MOST = 5_000;

/** Letters, digits, an ellipsis; signs of icon fonts (Unicode's private use areas) and ornaments say nothing to read. */
const READABLE = /[\p{L}\p{N}…]/u;

/** Whether a pseudo-element's `content` holds something to read: strings, attributes, counters. */
export function isReadable(content: string): boolean {
  return /\b(attr|counters?)\(/.test(content) || READABLE.test(content.replace(/[a-z-]+\([^)]*\)/gi, ''));
}

/** Numbers the hosts of pseudo-elements as the browser numbers its elements. */
export function untold(hosts: readonly { readonly node: number; readonly host: Element }[]): Untold[] {
  const places = new Map<Node, Map<Element, number>>();
  const placeIn = (root: Document | ShadowRoot, element: Element): number => {
    let known = places.get(root);
    if (!known) {
      known = new Map([...root.querySelectorAll('*')].map((each, place) => [each, place]));
      places.set(root, known);
    }
    return known.get(element) ?? -1;
  };
  const pathOf = (element: Element): number[] => {
    const root = element.getRootNode() as Document | ShadowRoot;
    const holder = 'host' in root ? root.host : root.defaultView?.frameElement;
    return [...(holder ? pathOf(holder) : []), placeIn(root, element)];
  };
  return hosts.slice(0, MOST).map(({ node, host }) => ({ node, path: pathOf(host) }));
}
