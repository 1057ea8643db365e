import Flatbush from 'flatbush';
import type { Rect } from './rect.js';

/** Rectangles by where they are. The list may be empty, and may have gaps (null). */
export class RectIndex {
  private readonly tree: Flatbush | null;
  private readonly items: Int32Array;

  constructor(rects: readonly (Rect | null)[]) {
    const items: number[] = [];
    rects.forEach((rect, i) => {
      if (rect) items.push(i);
    });
    this.items = Int32Array.from(items);
    this.tree = items.length > 0 ? new Flatbush(items.length) : null;
    for (const i of items) {
      const { x, y, width, height } = rects[i]!;
      this.tree!.add(x, y, x + width, y + height);
    }
    this.tree?.finish();
  }

  /** The places in the list of those that meet a rectangle, in rising order. */
  search({ x, y, width, height }: Rect, keep?: (item: number) => boolean): number[] {
    if (!this.tree) return [];
    const found = this.tree.search(x, y, x + width, y + height, keep && ((at) => keep(this.items[at]!)));
    const items = found.map((at) => this.items[at]!);
    return items.length > 1 ? items.sort((a, b) => a - b) : items;
  }
}
