import Flatbush from 'flatbush';
import type { Rect } from './rect.js';

/** Boxes on a page are small and lie apart: small nodes are looked through fastest. */
const NODE_SIZE = 8;

/** Rectangles by where they are. The list may be empty, and may have gaps (null). */
export class RectIndex {
  private readonly tree: Flatbush | null;
  /** The place in the list of each rectangle of the tree. */
  private readonly items: Int32Array;

  constructor(rects: readonly (Rect | null)[]) {
    this.items = new Int32Array(rects.reduce((count, rect) => (rect ? count + 1 : count), 0));
    this.tree = this.items.length > 0 ? new Flatbush(this.items.length, NODE_SIZE) : null;
    rects.forEach((rect, i) => {
      if (rect) this.items[this.tree!.add(rect.x, rect.y, rect.x + rect.width, rect.y + rect.height)] = i;
    });
    this.tree?.finish();
  }

  /** The places in the list of those that meet a rectangle, in rising order. */
  search({ x, y, width, height }: Rect): number[] {
    if (!this.tree) return [];
    const found = this.tree.search(x, y, x + width, y + height);
    for (let at = 0; at < found.length; at++) found[at] = this.items[found[at]!]!;
    return inOrder(found);
  }
}

/** Up to so many are sorted in place: most searches find a few, and sorting these by the library would cost more than finding. */
const FEW = 24;

function inOrder(numbers: number[]): number[] {
  if (numbers.length > FEW) return numbers.sort((a, b) => a - b);
  for (let at = 1; at < numbers.length; at++) {
    const number = numbers[at]!;
    let to = at;
    for (; to > 0 && numbers[to - 1]! > number; to--) numbers[to] = numbers[to - 1]!;
    numbers[to] = number;
  }
  return numbers;
}
