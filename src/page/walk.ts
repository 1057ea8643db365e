import type { Box } from './pseudo-box.js';
import { childrenAmong, type Child } from './element-facts.js';
import { frameDocument } from './find.js';
import { AS_TOLD, type Drawn } from './page-px.js';
import type { Place } from './node-columns.js';
import { childrenOf, parentElementOf } from './own-accessors.js';

/** What a child takes over from its parent while the tree is walked. */
export interface Inherited extends Place {
  readonly flags: number;
  /** Padding box of the nearest positioned ancestor, in the frame's viewport. */
  readonly positioned: Box;
  /** The same for what is fixed: of the nearest ancestor that holds such boxes, else the viewport. */
  readonly fixed: Box;
  /** By how much lengths are drawn larger than styles tell them: of what it stands in, twice. */
  readonly drawn: Drawn;
  /** Content edges of the nearest block container. */
  readonly content: { left: number; right: number };
}

export interface Entry extends Child {
  readonly inherited: Inherited;
}

/**
 * The way through the page's flat tree, in its order: into shadow trees, to what is slotted, and into the documents of frames. With a
 * stack of its own: a page may nest deeper than the call stack reaches.
 */
export class Walk {
  private readonly waiting: Entry[];

  /**
   * @param scopes by row: the row of the element that holds its tree
   * @param leave counts what can't be read
   */
  constructor(
    private readonly scopes: readonly number[],
    private readonly leave: (what: string) => void,
  ) {
    const viewport = {
      x: 0,
      y: 0,
      width: document.documentElement.clientWidth,
      height: window.innerHeight,
    };
    const inherited = {
      node: -1,
      treeParent: -1,
      scope: -1,
      flags: 0,
      display: 'block',
      frame: { dx: window.scrollX, dy: window.scrollY },
      positioned: viewport,
      fixed: viewport,
      drawn: AS_TOLD,
      content: { left: 0, right: viewport.width },
    };
    this.waiting = [{ element: document.documentElement, nth: 0, inherited }];
  }

  next(): Entry | undefined {
    return this.waiting.pop();
  }

  /** How many elements are known of and not met yet. */
  get left(): number {
    return this.waiting.length;
  }

  push(children: readonly Child[], inherited: Inherited): void {
    for (let i = children.length - 1; i >= 0; i--) {
      const { element, nth } = children[i]!;
      this.waiting.push({ element, nth, inherited });
    }
  }

  /**
   * The children of an element as they are rendered: of its shadow tree, of what is slotted, of the frame's document, or plain.
   * @param contentBox of the element; null where it has no box
   * @param own its own children, from its first
   */
  pushBelow(element: Element, below: Inherited, contentBox: (() => Box) | null, own: readonly Child[]): void {
    const tag = element.localName;
    if (tag === 'iframe' || tag === 'frame') {
      const inner = frameDocument(element);
      if (!inner) this.leave('frames of another origin');
      else if (contentBox && (inner.documentElement as Element | null))
        this.pushFrame(inner.documentElement, below, contentBox());
      return;
    }
    if (element.shadowRoot) {
      const inShadow = { ...below, scope: below.node, treeParent: -1 };
      this.push(childrenAmong(element.shadowRoot.children), inShadow);
      return;
    }
    const assigned = tag === 'slot' ? (element as HTMLSlotElement).assignedElements() : [];
    if (assigned.length > 0) {
      // Slotted elements belong to the host's tree, whose path their selectors follow.
      const host = this.scopes[below.node] ?? -1;
      const inHost = { ...below, scope: host < 0 ? -1 : this.scopes[host]!, treeParent: host };
      this.push(childrenAmong(assigned, siblingsOf(assigned[0]!) ?? assigned), inHost);
      return;
    }
    this.push(own, below);
  }

  private pushFrame(element: Element, below: Inherited, content: Box): void {
    const viewport = { x: 0, y: 0, width: content.width, height: content.height };
    const inherited = {
      ...below,
      scope: below.node,
      treeParent: -1,
      flags: 0,
      frame: { dx: below.frame.dx + content.x, dy: below.frame.dy + content.y },
      positioned: viewport,
      fixed: viewport,
      drawn: AS_TOLD,
    };
    this.waiting.push({ element, inherited, nth: 0 });
  }
}

function siblingsOf(element: Element): HTMLCollection | null {
  const parent = parentElementOf(element);
  return parent && childrenOf(parent);
}
