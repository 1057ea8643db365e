import type { SnapshotView } from '../layout/view.js';

/**
 * Numbers for elements that hold in several open copies of one page, and for elements that a script builds anew: those of one path have
 * one number, and an element keeps the number that it was first given for as long as it is there.
 */
export class SharedNumbers {
  private readonly byPath = new Map<string, number>();

  /** A numbering of one open copy: of each element of a layout its number. */
  copy(): (view: SnapshotView) => Int32Array {
    /** By the uid; and the uid that has a number. */
    const known = new Map<number, number>();
    const holders = new Map<number, number>();
    return (view) => {
      const numbers = new Int32Array(view.count).fill(-1);
      const present = new Set<number>();
      for (let i = 0; i < view.count; i++) {
        const uid = view.uid(i);
        present.add(uid);
        numbers[i] = known.get(uid) ?? -1;
      }
      for (let i = 0; i < view.count; i++) {
        if (numbers[i]! >= 0) continue;
        const uid = view.uid(i);
        const parent = view.parent(i);
        let path = `${parent < 0 ? '' : numbers[parent]!} ${view.tag(i)} ${view.snapshot.nodes.nth[i]!}`;
        for (;;) {
          const number = this.numberOf(path);
          const holder = holders.get(number);
          if (holder === undefined || !present.has(holder) || holder === uid) {
            numbers[i] = number;
            known.set(uid, number);
            holders.set(number, uid);
            break;
          }
          // Another one came to stand in its place.
          path += '′';
        }
      }
      return numbers;
    };
  }

  private numberOf(path: string): number {
    const known = this.byPath.get(path) ?? this.byPath.size;
    this.byPath.set(path, known);
    return known;
  }
}
