import { isNamed } from '../identity/names.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { alikeness, LEAST_ALIKE } from './alike.js';
import { alignedInOrder } from './in-order.js';
import { sideOf, type Side } from './side.js';

/** Which element of one layout is which of another. */
export interface Pairing {
  readonly a: Side;
  readonly b: Side;
  /** By the row of the one, the row of the other; −1 where it has none. */
  readonly toB: Int32Array;
  readonly toA: Int32Array;
  /** By the row of `a`: how sure it is, 0 to 1. */
  readonly confidence: Float64Array;
}

/** Sure by the place in the tree alone. */
const BY_CHILDREN = 0.8;
/** Sure by name and words, wherever it stands. */
const BY_WORDS = 0.7;
/** Fewer words stand at many places. */
const LEAST_WORDS = 8;
/** Rounds of looking above and below of what is paired. */
const ROUNDS = 3;

/**
 * Matches the elements of two layouts of a page: by ids, by what is equal with all that stands in it, then from the top down among the
 * children of what is matched, through elements that were put round others or taken away, from the bottom up, and at last by name and words
 * wherever they stand. Each step takes only what the steps before left, so the whole is near-linear in the number of elements.
 */
export function pairingOf(before: SnapshotView, after: SnapshotView): Pairing {
  return new Pairer(sideOf(before), sideOf(after)).run();
}

/** The elements that both layouts have and show, by their rows in each, in the order of the first. */
export function shownPairs({ a, b, toB }: Pairing): [i: NodeIndex, j: NodeIndex][] {
  return a.rows.flatMap((i): [NodeIndex, NodeIndex][] => {
    const j = toB[i]!;
    return j >= 0 && a.isShown[i] && b.isShown[j] ? [[i, j]] : [];
  });
}

class Pairer {
  private readonly toB: Int32Array;
  private readonly toA: Int32Array;
  private readonly confidence: Float64Array;

  constructor(
    private readonly a: Side,
    private readonly b: Side,
  ) {
    this.toB = new Int32Array(a.view.count).fill(-1);
    this.toA = new Int32Array(b.view.count).fill(-1);
    this.confidence = new Float64Array(a.view.count);
  }

  run(): Pairing {
    const { a, b, toB, toA, confidence } = this;
    if (a.rows.length > 0 && b.rows.length > 0) {
      this.pair(a.view.root, b.view.root, 1);
      if (a.view.body >= 0 && b.view.body >= 0) this.pair(a.view.body, b.view.body, 1);
      this.pairIds();
      this.pairWholes();
      for (let round = 0; round < ROUNDS; round++) {
        const before = this.count();
        this.pairDown();
        this.pairUp();
        if (this.count() === before) break;
      }
      this.pairWords();
      this.pairDown();
    }
    return { a, b, toB, toA, confidence };
  }

  private count(): number {
    return this.toB.reduce((sum, j) => sum + (j >= 0 ? 1 : 0), 0);
  }

  private pair(i: NodeIndex, j: NodeIndex, sure: number): void {
    if (this.toB[i]! >= 0 || this.toA[j]! >= 0) return;
    this.toB[i] = j;
    this.toA[j] = i;
    this.confidence[i] = sure;
  }

  private pairIds(): void {
    const { a, b } = this;
    const keyIn =
      ({ view }: Side) =>
      (i: NodeIndex) =>
        isNamed(view, i) ? `${view.tag(i)}#${view.id(i)}` : null;
    for (const [i, j] of uniquePairs(a, b, keyIn(a), keyIn(b))) this.pair(i, j, 1);
  }

  /** What is the only one of its kind on both sides, with all that stands in it: the largest first, which stands first. */
  private pairWholes(): void {
    const { a, b } = this;
    const isFree = (i: NodeIndex) => this.toB[i]! < 0;
    for (const [i, j] of uniquePairs(
      a,
      b,
      (at) => a.whole[at]!,
      (at) => b.whole[at]!,
    ))
      if (isFree(i)) this.pairTrees(i, j);
  }

  /** Two equal trees, element by element. Pages nest deeper than the call stack reaches. */
  private pairTrees(i: NodeIndex, j: NodeIndex): void {
    const waiting = [[i, j] as const];
    for (let next = waiting.pop(); next; next = waiting.pop()) {
      const [at, other] = next;
      this.pair(at, other, 1);
      const below = this.b.children[other]!;
      this.a.children[at]!.forEach((child, nth) => waiting.push([child, below[nth]!]));
    }
  }

  /** The children of what is paired, from the top down. */
  private pairDown(): void {
    for (const i of this.a.rows) {
      const j = this.toB[i]!;
      if (j < 0) continue;
      const [left, right] = [this.freeA(i), this.freeB(j)];
      if (left.length === 0 || right.length === 0) continue;
      this.pairLists(left, right, LEAST_ALIKE);
      this.pairThroughWrappers(this.freeA(i), this.freeB(j));
    }
  }

  private freeA(i: NodeIndex): NodeIndex[] {
    return this.a.children[i]!.filter((child) => this.toB[child]! < 0);
  }

  private freeB(j: NodeIndex): NodeIndex[] {
    return this.b.children[j]!.filter((child) => this.toA[child]! < 0);
  }

  private pairLists(left: readonly NodeIndex[], right: readonly NodeIndex[], least: number): void {
    const { a, b } = this;
    // What is equal may stand in another order.
    this.pairByKey(left, right, (side, i) => side.whole[i]!, 1);
    const [freeLeft, freeRight] = [
      left.filter((i) => this.toB[i]! < 0),
      right.filter((j) => this.toA[j]! < 0),
    ];
    const pairs = alignedInOrder(
      freeLeft.length,
      freeRight.length,
      (x, y) => alikeness(a, freeLeft[x]!, b, freeRight[y]!),
      least,
    );
    if (pairs) for (const [x, y, score] of pairs) this.pair(freeLeft[x]!, freeRight[y]!, score);
    else {
      this.pairByKey(freeLeft, freeRight, (side, i) => `${side.own[i]!} ${side.words[i]!}`, 0.9);
      this.pairByKey(freeLeft, freeRight, (side, i) => side.own[i]!, 0.6);
    }
    this.pairByKey(
      left,
      right,
      (side, i) => (side.words[i] === '' ? null : `${side.own[i]!} ${side.words[i]!}`),
      0.9,
    );
  }

  /** The first with a key goes with the first that has it, the second with the second. */
  private pairByKey(
    left: readonly NodeIndex[],
    right: readonly NodeIndex[],
    key: (side: Side, i: NodeIndex) => string | number | null,
    sure: number,
  ): void {
    const waiting = new Map<string | number, NodeIndex[]>();
    for (const j of right) {
      const at = this.toA[j]! < 0 ? key(this.b, j) : null;
      if (at !== null) waiting.set(at, [...(waiting.get(at) ?? []), j]);
    }
    for (const i of left) {
      const at = this.toB[i]! < 0 ? key(this.a, i) : null;
      const j = at === null ? undefined : waiting.get(at)?.shift();
      if (j === undefined) continue;
      if (sure === 1) this.pairTrees(i, j);
      else this.pair(i, j, sure);
    }
  }

  /** What stands in a new element with the children that it was put round, and the other way round. */
  private pairThroughWrappers(left: readonly NodeIndex[], right: readonly NodeIndex[]): void {
    const SURE = 0.6;
    for (const wrapper of right) {
      const inner = this.freeB(wrapper);
      if (inner.length > 0)
        this.pairLists(
          left.filter((i) => this.toB[i]! < 0),
          inner,
          SURE,
        );
    }
    for (const wrapper of left) {
      if (this.toB[wrapper]! >= 0) continue;
      const inner = this.freeA(wrapper);
      if (inner.length > 0)
        this.pairLists(
          inner,
          right.filter((j) => this.toA[j]! < 0),
          SURE,
        );
    }
  }

  /** What most children of an element went with stands in the one that it goes with. */
  private pairUp(): void {
    const { a, b } = this;
    for (let at = a.rows.length - 1; at >= 0; at--) {
      const i = a.rows[at]!;
      if (this.toB[i]! >= 0 || a.children[i]!.length === 0) continue;
      const votes = new Map<NodeIndex, number>();
      for (const child of a.children[i]!) {
        const partner = this.toB[child]!;
        const above = partner < 0 ? -1 : b.view.parent(partner);
        if (above >= 0 && this.toA[above]! < 0 && b.view.tag(above) === a.view.tag(i))
          votes.set(above, (votes.get(above) ?? 0) + 1);
      }
      const [best] = [...votes].sort((x, y) => y[1] - x[1]);
      if (!best) continue;
      const [j, count] = best;
      if (2 * count > Math.max(a.children[i]!.length, b.children[j]!.length)) this.pair(i, j, BY_CHILDREN);
    }
  }

  /** What was moved elsewhere: the only one of its name and words that is left on both sides. */
  private pairWords(): void {
    const { a, b } = this;
    const keyIn = (side: Side, other: Int32Array) => (i: NodeIndex) =>
      other[i]! < 0 && side.words[i]!.length >= LEAST_WORDS ? `${side.own[i]!} ${side.words[i]!}` : null;
    for (const [i, j] of uniquePairs(a, b, keyIn(a, this.toB), keyIn(b, this.toA))) this.pair(i, j, BY_WORDS);
  }
}

/** Elements with a key that one element on each side has, in the order of the document. */
function uniquePairs(
  a: Side,
  b: Side,
  keyA: (i: NodeIndex) => string | number | null,
  keyB: (j: NodeIndex) => string | number | null,
): [NodeIndex, NodeIndex][] {
  const inB = soleIn(b.rows, keyB);
  return [...soleIn(a.rows, keyA)].flatMap(([key, i]) => {
    const j = inB.get(key);
    return i < 0 || j === undefined || j < 0 ? [] : [[i, j] as [NodeIndex, NodeIndex]];
  });
}

/** By the key, the element; −1 where several have it. */
function soleIn(
  rows: readonly NodeIndex[],
  key: (i: NodeIndex) => string | number | null,
): Map<string | number, NodeIndex> {
  const found = new Map<string | number, NodeIndex>();
  for (const i of rows) {
    const at = key(i);
    if (at !== null) found.set(at, found.has(at) ? -1 : i);
  }
  return found;
}
