import { ofHosts } from './rule-names.js';
import { uidOf } from './identity.js';
import { flatParentOf } from './own-accessors.js';

/** Elements that a condition's rules are about, at most: more have the same few containers. */
const MOST_ELEMENTS = 400;
const MOST_CONTAINERS = 60;

/** A container query, by what finds its containers. */
export interface ContainerRequest {
  /** Of the containers that it asks; null for any. */
  readonly name: string | null;
  /** Of the rules in it; none where they are not known. */
  readonly selectors: readonly string[];
}

/** Of each query the uids of the containers that it asks: the nearest one above each element that its rules are about. */
export function containersOf(requests: readonly ContainerRequest[]): number[][] {
  const roots: (Document | ShadowRoot)[] = [document];
  for (const root of roots)
    for (const element of root.querySelectorAll('*')) if (element.shadowRoot) roots.push(element.shadowRoot);
  return requests.map(({ name, selectors }) => {
    const asked = roots.flatMap((root) => selectors.flatMap((selector) => elementsIn(root, selector)));
    const about = asked.length > 0 ? asked : roots.flatMap((root) => elementsIn(root, '*'));
    const found = new Set<number>();
    for (const element of about) {
      const container = containerAbove(element, name);
      if (container) found.add(uidOf(container));
      if (found.size >= MOST_CONTAINERS) break;
    }
    return [...found];
  });
}

function elementsIn(root: Document | ShadowRoot, selector: string): Element[] {
  try {
    const found = [...root.querySelectorAll(ofHosts(selector))];
    return found.slice(0, MOST_ELEMENTS);
  } catch {
    return [];
  }
}

/** In the flat tree, as containers are looked for (CSS Conditional 5, section 5.1). */
function containerAbove(element: Element, name: string | null): Element | null {
  for (let at = flatParentOf(element); at; at = flatParentOf(at)) {
    const { containerType, containerName } = getComputedStyle(at);
    if (/^(inline-)?size\b/.test(containerType) && (name === null || containerName.split(' ').includes(name)))
      return at;
  }
  return null;
}
