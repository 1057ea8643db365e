import { viewOf, type Node } from './snapshot.js';
import type { SnapshotView } from '../../src/core/layout/view.js';

export const WIDTH = 1000;

/** A block of words, 20 px high unless told. */
export function words(tag: string, y: number, says: string, more: Partial<Node> = {}): Node {
  return { tag, box: [0, y, WIDTH, 20], says, ...more };
}

/** A list of sailings, three cards in a row from a height on. */
export function cards(y: number, names: readonly string[], more: Partial<Node> = {}): Node {
  return {
    tag: 'ul',
    class: 'sailings',
    box: [0, y, WIDTH, 100],
    style: { display: 'flex' },
    ...more,
    children: names.map((name, i) => ({
      tag: 'li',
      class: 'card',
      box: [i * 300, y, 280, 100] as const,
      style: { 'background-color': 'rgb(220, 235, 240)' },
      children: [words('h3', y + 10, name, { box: [i * 300, y + 10, 280, 20] })],
    })),
  };
}

/** Heading, words, cards and a footer, one below the other. */
export function ferryPage(children?: readonly Node[], height = 800): SnapshotView {
  return viewOf({ width: WIDTH, height }, children ?? ferryParts());
}

export function ferryParts(): Node[] {
  return [
    words('h1', 0, 'Four islands, one evening light'),
    words('p', 40, 'Boats cross every day of the year.'),
    cards(80, ['Near Isle', 'Far Isle', 'Ember Rock']),
    words('footer', 200, 'Lantern Isles Ferries, Wickham Quay'),
  ];
}

/** The same, lower. */
export function lowered(node: Node, by: number): Node {
  const [x, y, width, height] = node.box;
  return {
    ...node,
    box: [x, y + by, width, height],
    ...(node.children && { children: node.children.map((child) => lowered(child, by)) }),
  };
}
