import type { Protocol } from 'puppeteer-core';
import { KIND_ELEMENT } from '../../core/layout/snapshot.js';
import type { WireSnapshot } from '../../core/layout/wire.js';

type Captured = Protocol.DOMSnapshot.CaptureSnapshotResponse;

const ELEMENT = 1;
/** Trees that the page can't look into: their slots are passed through. */
const CLOSED = /^(user-agent|closed)$/;

/** A node of the browser's own account of the page (`DOMSnapshot.captureSnapshot`). */
export interface Place {
  /** Which of its documents. */
  readonly document: number;
  readonly node: number;
}

/**
 * Finds the rows of a snapshot in the browser's account of the same page. Both follow the flat tree (CSS Scoping 1,
 * section 3.5), so an element is the same child of the same parent in both.
 */
export class FlatTree {
  private readonly places = new Map<number, Place | null>();
  /** By row: which child of its parent it is. */
  private readonly ordinal: Int32Array;
  private readonly documents: BrowserDocument[];

  constructor(
    private readonly wire: WireSnapshot,
    captured: Captured,
  ) {
    const { count, parent, kind } = wire.nodes;
    const met = new Int32Array(count);
    this.ordinal = new Int32Array(count);
    for (let row = 1; row < count; row++)
      if (kind[row] === KIND_ELEMENT) this.ordinal[row] = met[parent[row]!]!++;
    this.documents = captured.documents.map((document) => readDocument(document, captured.strings));
  }

  placeOf(row: number): Place | null {
    // Downwards from the nearest known one: a page may nest deeper than the call stack reaches.
    const path: number[] = [];
    for (let at = row; at >= 0 && !this.places.has(at); at = this.wire.nodes.parent[at]!) path.push(at);
    for (const at of path.reverse()) this.places.set(at, this.find(at));
    return this.places.get(row)!;
  }

  /** The pseudo-element of an element. */
  pseudoElement(row: number, which: 'before' | 'after'): Place | null {
    const host = this.placeOf(row);
    const node = host && this.documents[host.document]!.pseudo.get(`${which} ${host.node}`);
    return node === undefined || node === null ? null : { document: host!.document, node };
  }

  /** By the place of its parent, which is known. */
  private find(row: number): Place | null {
    if (row === 0) return this.rootOf(0);
    const { parent, tag } = this.wire.nodes;
    const around = this.places.get(parent[row]!);
    if (!around) return null;
    const document = this.documents[around.document]!;
    const frame = document.frames.get(around.node);
    if (frame !== undefined) return this.rootOf(frame);
    const node = document.children[around.node]?.[this.ordinal[row]!];
    const isSame = node !== undefined && document.name(node) === this.wire.strings[tag[row]!];
    return isSame ? { document: around.document, node } : null;
  }

  private rootOf(document: number): Place | null {
    const node = this.documents[document]?.children[0]?.[0];
    return node === undefined ? null : { document, node };
  }
}

interface BrowserDocument {
  /** Element children by node, those of closed trees taken out and what they hold put in their place. */
  readonly children: readonly number[][];
  /** By `which host`. */
  readonly pseudo: ReadonlyMap<string, number>;
  /** Documents by the frame that shows them. */
  readonly frames: ReadonlyMap<number, number>;
  readonly name: (node: number) => string;
}

function readDocument({ nodes }: Captured['documents'][number], strings: readonly string[]): BrowserDocument {
  const { parentIndex = [], nodeType = [], nodeName = [] } = nodes;
  const trees = textsOf(nodes.shadowRootType, strings);
  const pseudoTypes = textsOf(nodes.pseudoType, strings);
  const children: number[][] = parentIndex.map(() => []);
  const pseudo = new Map<string, number>();
  const isClosed = (node: number) => CLOSED.test(trees.get(node) ?? '');
  for (const [node, parent] of parentIndex.entries()) {
    if (parent < 0) continue;
    const type = pseudoTypes.get(node);
    if (type !== undefined) pseudo.set(`${type} ${parent}`, node);
    else if (nodeType[node] === ELEMENT && !isClosed(node)) {
      let holder = parent;
      while (isClosed(holder)) holder = parentIndex[holder]!;
      children[holder]!.push(node);
    }
  }
  const frames = new Map<number, number>();
  nodes.contentDocumentIndex?.index.forEach((node, row) =>
    frames.set(node, nodes.contentDocumentIndex!.value[row]!),
  );
  return { children, pseudo, frames, name: (node) => (strings[nodeName[node]!] ?? '').toLowerCase() };
}

function textsOf(
  column: Protocol.DOMSnapshot.RareStringData | undefined,
  strings: readonly string[],
): Map<number, string> {
  return new Map(column?.index.map((node, row) => [node, strings[column.value[row]!] ?? '']));
}
