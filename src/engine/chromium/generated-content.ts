import type { CDPSession, Protocol } from 'puppeteer-core';
import { FLAG_RENDERED, FLAG_TEXT, KIND_BEFORE, LINE_UNBREAKABLE } from '../../core/layout/snapshot.js';
import type { WireSnapshot } from '../../core/layout/wire.js';
import { FlatTree } from './flat-tree.js';

/** Of a larger page the browser's own account would take seconds. */
const MOST_ELEMENTS = 30_000;
const MAX_SAMPLE = 80;

/**
 * Puts the boxes and text lines of pseudo-elements into a snapshot: the DOM has none for them, the browser's layout has.
 * Rectangles of the browser's account are CSS px from the top left of the document that they stand in.
 * @param untold rows of pseudo-elements
 */
export async function addGeneratedContent(
  session: CDPSession,
  wire: WireSnapshot,
  untold: readonly number[],
): Promise<void> {
  if (untold.length === 0) return;
  if (wire.nodes.count > MOST_ELEMENTS) {
    wire.leftOut.push({ what: 'pseudo-elements', count: untold.length });
    return;
  }
  const captured = await session.send('DOMSnapshot.captureSnapshot', { computedStyles: [] });
  const tree = new FlatTree(wire, captured);
  const layouts = captured.documents.map((document) => new DocumentLayout(document, captured.strings));
  for (const row of untold) {
    const which = wire.nodes.kind[row] === KIND_BEFORE ? 'before' : 'after';
    const place = tree.pseudoElement(wire.nodes.parent[row]!, which);
    const found = place && layouts[place.document]!.of(place.node);
    if (found) put(wire, row, found, frameOffset(wire, row));
  }
}

interface Found {
  readonly box: readonly number[];
  readonly lines: readonly { readonly box: readonly number[]; readonly text: string }[];
  /** How far its document is scrolled, CSS px. */
  readonly scroll: readonly [x: number, y: number];
}

/** Where the nodes of one document were laid out. */
class DocumentLayout {
  /** The layout objects of a node, and the text boxes of a layout object. */
  private readonly objects = new Map<number, number[]>();
  private readonly texts = new Map<number, number[]>();

  constructor(
    private readonly document: Protocol.DOMSnapshot.DocumentSnapshot,
    private readonly strings: readonly string[],
  ) {
    document.layout.nodeIndex.forEach((node, object) => list(this.objects, node).push(object));
    document.textBoxes.layoutIndex.forEach((object, row) => list(this.texts, object).push(row));
  }

  of(node: number): Found | null {
    const { layout, textBoxes, scrollOffsetX = 0, scrollOffsetY = 0 } = this.document;
    const [first, ...others] = this.objects.get(node) ?? [];
    if (first === undefined) return null;
    const lines = [first, ...others].flatMap((object) => {
      const text = this.strings[layout.text[object]!] ?? '';
      return (this.texts.get(object) ?? []).map((row) => {
        const start = textBoxes.start[row]!;
        return {
          box: textBoxes.bounds[row]!,
          text: text.slice(start, start + textBoxes.length[row]!).trim(),
        };
      });
    });
    return { box: layout.bounds[first]!, lines, scroll: [scrollOffsetX, scrollOffsetY] };
  }
}

function list(lists: Map<number, number[]>, key: number): number[] {
  let found = lists.get(key);
  if (!found) lists.set(key, (found = []));
  return found;
}

/** Where the viewport of the frame that a row stands in lies on the page; null for the page's own document. */
function frameOffset({ nodes, strings }: WireSnapshot, row: number): [number, number] | null {
  let holder = nodes.scope[row]!;
  while (holder >= 0 && !/^i?frame$/.test(strings[nodes.tag[holder]!]!)) holder = nodes.scope[holder]!;
  if (holder < 0) return null;
  const left = nodes.border[4 * holder + 3]! + nodes.padding[4 * holder + 3]!;
  const top = nodes.border[4 * holder]! + nodes.padding[4 * holder]!;
  return [nodes.box[4 * holder]! + left, nodes.box[4 * holder + 1]! + top];
}

function put(wire: WireSnapshot, row: number, found: Found, frame: [number, number] | null): void {
  const { nodes, lines, strings } = wire;
  const [dx, dy] = frame ? [frame[0] - found.scroll[0], frame[1] - found.scroll[1]] : [0, 0];
  const placed = ([x = 0, y = 0, width = 0, height = 0]: readonly number[]) =>
    [x + dx, y + dy, width, height].map((value) => Math.round(value * 100) / 100);
  for (const [side, value] of placed(found.box).entries()) nodes.box[4 * row + side] = value;
  nodes.flags[row]! |= FLAG_RENDERED;
  const flags = /^(nowrap|pre)$/.test(styleOf(wire, row, 'white-space')) ? LINE_UNBREAKABLE : 0;
  for (const { box, text } of found.lines) {
    if (text === '') continue;
    nodes.flags[row]! |= FLAG_TEXT;
    lines.node.push(row);
    lines.box.push(...placed(box));
    lines.text.push(strings.push(text.slice(0, MAX_SAMPLE)) - 1);
    lines.flags.push(flags);
    lines.face.push(-1);
    lines.count++;
  }
}

function styleOf(
  { nodes, styles, styleProperties, strings }: WireSnapshot,
  row: number,
  property: string,
): string {
  const column = styleProperties.indexOf(property);
  return strings[styles[nodes.style[row]! * styleProperties.length + column]!] ?? '';
}
