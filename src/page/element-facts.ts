import { FLAG_TEXT } from '../core/layout/snapshot.js';
import { childNodesOf, childrenOf } from './own-accessors.js';
import { anchorIds, flagsOf } from './traits.js';
import { positionsByTag, renderedChildNodes } from './tree.js';

/** An element among those that its parent shows. */
export interface Child {
  readonly element: Element;
  /** As `nodes.nth` of a snapshot. */
  readonly nth: number;
}

/** What an element is called. */
export interface Names {
  readonly id: string;
  /** As they are written, white space folded. */
  readonly classes: string;
}

/** What the tree says of an element, at whatever size of the window. */
export interface ElementFacts extends Names {
  /** Those that it has by itself, without `FLAG_TEXT`, which words may come and go by. */
  readonly flags: number;
  /** The text nodes that stand in it. */
  readonly texts: readonly Text[];
  /** Those that are shown in it: others where it has a shadow tree, or is a slot. */
  readonly shownTexts: readonly Text[];
  /** Its own children, from its first. */
  readonly children: readonly Child[];
}

export const NO_NAMES: Names = { id: '', classes: '' };

export function namesOf(element: Element): Names {
  return {
    id: element.getAttribute('id') ?? '',
    classes: (element.getAttribute('class') ?? '').trim().replace(/\s+/g, ' '),
  };
}

/** The elements of a list with their places among `siblings`. */
export function childrenAmong(
  elements: ArrayLike<Element>,
  siblings: ArrayLike<Element> = elements,
): readonly Child[] {
  const positions = positionsByTag(siblings);
  return Array.from(elements, (element) => ({ element, nth: positions.get(element) ?? 0 }));
}

/** Whether some of the texts has words: what scripts write into them is seen by nothing but reading them. */
export function wordsFlag(texts: readonly Text[]): number {
  return texts.some(({ data }) => /\S/.test(data)) ? FLAG_TEXT : 0;
}

/** What keeps the facts of elements. */
interface FactsMemory {
  of(element: Element): { facts: ElementFacts | null } | null;
}

/** Reads the facts of elements: once for as long as what is known of their styles is kept, since that goes when the tree changes. */
export class FactsReader {
  private anchors: ReadonlySet<string> | null = null;

  constructor(private readonly memory: FactsMemory | null) {}

  of(element: Element, tag: string): ElementFacts {
    const kept = this.memory?.of(element) ?? null;
    if (kept === null) return this.read(element, tag);
    return (kept.facts ??= this.read(element, tag));
  }

  private read(element: Element, tag: string): ElementFacts {
    this.anchors ??= anchorIds(document);
    const own = childNodesOf(element);
    const shown = renderedChildNodes(element, tag);
    const texts = textsOf(own);
    return {
      ...namesOf(element),
      flags: flagsOf(element, tag, this.anchors),
      texts,
      shownTexts: shown === own ? texts : textsOf(shown),
      children: childrenAmong(childrenOf(element)),
    };
  }
}

function textsOf(nodes: Iterable<Node>): readonly Text[] {
  const texts: Text[] = [];
  for (const node of nodes) if (node.nodeType === Node.TEXT_NODE) texts.push(node as Text);
  return texts;
}
