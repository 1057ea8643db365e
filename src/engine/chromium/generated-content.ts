import type { CDPSession, Protocol } from 'puppeteer-core';
import { FLAG_RENDERED, FLAG_TEXT, KIND_BEFORE, LINE_UNBREAKABLE } from '../../core/layout/snapshot.js';
import type { WireSnapshot } from '../../core/layout/wire.js';
import type { Untold } from '../../page/generated.js';

type Captured = Protocol.DOMSnapshot.CaptureSnapshotResponse;
type CapturedDocument = Protocol.DOMSnapshot.DocumentSnapshot;

/** Of a larger page the browser's own account would take seconds. */
const MOST_ELEMENTS = 30_000;
const MAX_SAMPLE = 80;
const ELEMENT = 1;
const FRAGMENT = 11;

/**
 * Puts the boxes and text lines of pseudo-elements into a snapshot: the DOM has none for them, the browser's layout has.
 * Rectangles of the browser's account are CSS px from the top left of the document that they stand in.
 */
export async function addGeneratedContent(
  session: CDPSession,
  wire: WireSnapshot,
  untold: readonly Untold[],
): Promise<void> {
  if (untold.length === 0) return;
  if (wire.nodes.count > MOST_ELEMENTS) {
    wire.leftOut.push({ what: 'pseudo-elements', count: untold.length });
    return;
  }
  const captured = await session.send('DOMSnapshot.captureSnapshot', { computedStyles: [] });
  const account = new Account(captured);
  for (const { node, path } of untold) {
    const which = wire.nodes.kind[node] === KIND_BEFORE ? 'before' : 'after';
    const found = account.pseudoElement(path, which);
    if (found) put(wire, node, found, frameOffset(wire, node));
  }
}

interface Found {
  readonly box: readonly number[];
  readonly lines: readonly { readonly box: readonly number[]; readonly text: string }[];
  /** How far its document is scrolled, CSS px. */
  readonly scroll: readonly [x: number, y: number];
}

/** The browser's account of a page, by the places of elements in their trees. */
class Account {
  private readonly trees = new Map<string, Tree>();

  constructor(private readonly captured: Captured) {
    captured.documents.forEach((document, at) => this.read(document, at));
  }

  pseudoElement(path: readonly number[], which: 'before' | 'after'): Found | null {
    let key = '0';
    for (const [step, place] of path.entries()) {
      const tree = this.trees.get(key);
      const node = tree?.elements[place];
      if (!tree || node === undefined) return null;
      if (step === path.length - 1) return this.found(tree.document, tree.pseudo.get(`${which} ${node}`));
      key = tree.inner.get(node) ?? '';
    }
    return null;
  }

  private found(document: CapturedDocument, node: number | undefined): Found | null {
    if (node === undefined) return null;
    const { layout, textBoxes, scrollOffsetX = 0, scrollOffsetY = 0 } = document;
    const first = layout.nodeIndex.indexOf(node);
    if (first < 0) return null;
    const lines: { box: number[]; text: string }[] = [];
    for (let at = first; layout.nodeIndex[at] === node; at++) {
      const text = this.captured.strings[layout.text[at]!] ?? '';
      textBoxes.layoutIndex.forEach((of, row) => {
        const [start, length] = [textBoxes.start[row]!, textBoxes.length[row]!];
        if (of === at)
          lines.push({ box: textBoxes.bounds[row]!, text: text.slice(start, start + length).trim() });
      });
    }
    return { box: layout.bounds[first]!, lines, scroll: [scrollOffsetX, scrollOffsetY] };
  }

  /** Trees by `document`, and by `document/host` those of shadow roots. */
  private read(document: CapturedDocument, at: number): void {
    const {
      parentIndex = [],
      nodeType = [],
      shadowRootType,
      contentDocumentIndex,
      pseudoType,
    } = document.nodes;
    const shadows = rare(shadowRootType, this.captured.strings);
    const pseudo = rare(pseudoType, this.captured.strings);
    const frames = new Map(
      contentDocumentIndex?.index.map((node, row) => [node, contentDocumentIndex.value[row]!]),
    );
    const treeOf: (Tree | null)[] = [];
    const treeAt = (key: string): Tree => {
      let tree = this.trees.get(key);
      if (!tree)
        this.trees.set(key, (tree = { document, elements: [], pseudo: new Map(), inner: new Map() }));
      return tree;
    };
    for (const [node, parent] of parentIndex.entries()) {
      const around = parent < 0 ? treeAt(String(at)) : treeOf[parent]!;
      treeOf[node] = around;
      if (pseudo.has(node)) around.pseudo.set(`${pseudo.get(node)} ${parent}`, node);
      else if (nodeType[node] === FRAGMENT) {
        const key = `${at}/${node}`;
        if (shadows.get(node) === 'open') around.inner.set(parent, key);
        treeOf[node] = treeAt(key);
      } else if (nodeType[node] === ELEMENT) {
        around.elements.push(node);
        const frame = frames.get(node);
        if (frame !== undefined) around.inner.set(node, String(frame));
      }
    }
  }
}

/** A document or shadow tree: its elements in their order. */
interface Tree {
  readonly document: CapturedDocument;
  readonly elements: number[];
  /** By `which host`. */
  readonly pseudo: Map<string, number>;
  /** The tree that an element holds, by the element. */
  readonly inner: Map<number, string>;
}

function rare(
  column: Protocol.DOMSnapshot.RareStringData | undefined,
  strings: readonly string[],
): Map<number, string> {
  return new Map(column?.index.map((node, row) => [node, strings[column.value[row]!] ?? '']));
}

/** Where the viewport of the frame that a node stands in lies on the page; null for the page's own document. */
function frameOffset({ nodes, strings }: WireSnapshot, node: number): [number, number] | null {
  let holder = nodes.scope[node]!;
  while (holder >= 0 && !/^i?frame$/.test(strings[nodes.tag[holder]!]!)) holder = nodes.scope[holder]!;
  if (holder < 0) return null;
  const left = nodes.border[4 * holder + 3]! + nodes.padding[4 * holder + 3]!;
  const top = nodes.border[4 * holder]! + nodes.padding[4 * holder]!;
  return [nodes.box[4 * holder]! + left, nodes.box[4 * holder + 1]! + top];
}

function put(wire: WireSnapshot, node: number, found: Found, frame: [number, number] | null): void {
  const { nodes, lines, strings, styles, styleProperties } = wire;
  const [dx, dy] = frame ? [frame[0] - found.scroll[0], frame[1] - found.scroll[1]] : [0, 0];
  const placed = ([x = 0, y = 0, width = 0, height = 0]: readonly number[]) =>
    [x + dx, y + dy, width, height].map((value) => Math.round(value * 100) / 100);
  nodes.box.splice(4 * node, 4, ...placed(found.box));
  nodes.flags[node]! |= FLAG_RENDERED;
  const whiteSpace =
    strings[styles[nodes.style[node]! * styleProperties.length + styleProperties.indexOf('white-space')]!];
  const flags = /^(nowrap|pre)$/.test(whiteSpace ?? '') ? LINE_UNBREAKABLE : 0;
  for (const { box, text } of found.lines) {
    if (text === '') continue;
    nodes.flags[node]! |= FLAG_TEXT;
    lines.node.push(node);
    lines.box.push(...placed(box));
    lines.text.push(strings.push(text.slice(0, MAX_SAMPLE)) - 1);
    lines.flags.push(flags);
    lines.count++;
  }
}
