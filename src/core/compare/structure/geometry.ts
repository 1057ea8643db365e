import type { Rect } from '../../geometry/rect.js';
import type { NodeIndex } from '../../layout/view.js';
import { isFixed } from '../../layout/viewport-layer.js';
import { shownPairs, type Pairing } from '../pairing.js';
import { below } from '../side.js';
import type { Measures, Tolerance } from './parts.js';

/** How a box stands otherwise in its container, CSS px. */
export interface Shift {
  readonly dx: number;
  readonly dy: number;
  readonly dw: number;
  readonly dh: number;
}

/** By the row of `a`: the boxes that stand elsewhere in their container, or are larger or smaller. */
export type Shifts = ReadonlyMap<NodeIndex, Shift>;

const STILL: Shift = { dx: 0, dy: 0, dw: 0, dh: 0 };

/** Boxes that both layouts show. What stands in a line moves with the words, and is not looked at. */
export function shiftsOf(pairing: Pairing, measures: Measures): Shifts {
  const { a, b, toB } = pairing;
  const found = new Map<NodeIndex, Shift>();
  for (const [i, j] of shownPairs(pairing)) {
    if (isInLine(a.view.style(i, 'display')) || isInLine(b.view.style(j, 'display'))) continue;
    const holder = sharedHolder(i, j, { a, b, toB });
    const [was, is] = [a.view.box(i), b.view.box(j)];
    const [from, to] = isFixed(a.view, i)
      ? [a.view.snapshot.scroll, b.view.snapshot.scroll]
      : holder
        ? [a.view.box(holder[0]), b.view.box(holder[1])]
        : [
            { x: 0, y: 0 },
            { x: 0, y: 0 },
          ];
    const shift = {
      dx: is.x - to.x - (was.x - from.x),
      dy: is.y - to.y - (was.y - from.y),
      dw: is.width - was.width,
      dh: is.height - was.height,
    };
    if (exceeds(shift, measures.toleranceOf(i))) found.set(i, shift);
  }
  return found;
}

function exceeds({ dx, dy, dw, dh }: Shift, { moved, resized }: Tolerance): boolean {
  return [dx, dy].some((px) => Math.abs(px) > moved) || [dw, dh].some((px) => Math.abs(px) > resized);
}

function isInLine(display: string): boolean {
  return display === 'inline' || display === 'contents';
}

/** The nearest element around that both layouts have. */
function sharedHolder(
  i: NodeIndex,
  j: NodeIndex,
  { a, b, toB }: Pick<Pairing, 'a' | 'b' | 'toB'>,
): readonly [NodeIndex, NodeIndex] | null {
  for (let at = a.view.parent(i); at >= 0; at = a.view.parent(at)) {
    const other = toB[at]!;
    if (other < 0) continue;
    for (let above = b.view.parent(j); above >= 0; above = b.view.parent(above))
      if (above === other) return [at, other];
  }
  return null;
}

/**
 * Which shifts follow from differences that are told: below and beside them, and in what they stand in as far up as that is larger or
 * smaller by it.
 * @param causes rows of `a` with a difference of their own, or in whose children something is new or gone
 */
export function followersOf({ a }: Pairing, shifts: Shifts, causes: Iterable<NodeIndex>): Set<NodeIndex> {
  const following = new Set<NodeIndex>();
  const takeAll = (root: NodeIndex) => {
    for (const at of below(a, root)) if (shifts.has(at)) following.add(at);
  };
  for (const cause of causes) {
    takeAll(tableAround(a, cause) ?? cause);
    let at = cause;
    for (let parent = a.view.parent(at); parent >= 0; parent = a.view.parent(at)) {
      for (const sibling of a.children[parent]!) if (sibling !== at && shifts.has(sibling)) takeAll(sibling);
      const { dw, dh } = shifts.get(parent) ?? STILL;
      if (dw === 0 && dh === 0) break;
      following.add(parent);
      at = parent;
    }
  }
  return following;
}

/** A word in one cell of a table moves all the others. */
function tableAround({ view }: Pairing['a'], i: NodeIndex): NodeIndex | null {
  for (let at = i; at >= 0; at = view.parent(at)) {
    if (view.tag(at) === 'table') return at;
    if (at !== i && !/^(inline|block|table-.*)$/.test(view.style(at, 'display'))) return null;
  }
  return null;
}

/**
 * Of shifts that nothing told explains, the boxes that they begin at: of a box that is larger because of what is in it, that; of several
 * neighbours that moved, the one that is of another size, else what they stand in.
 */
export function shiftOrigins({ a }: Pairing, shifts: Shifts, isFree: (i: NodeIndex) => boolean): NodeIndex[] {
  const origins = new Set<NodeIndex>();
  for (const parent of a.rows) {
    if (isFree(parent) && shifts.has(parent)) continue;
    const moved = a.children[parent]!.filter((child) => shifts.has(child) && isFree(child));
    if (moved.length === 0) continue;
    const resized = moved.filter((child) => isResized(shifts.get(child)!));
    if (resized.length > 0 && resized.length < Math.max(2, moved.length))
      for (const child of resized) origins.add(deepest(a, shifts, child));
    else if (moved.length === 1) origins.add(deepest(a, shifts, moved[0]!));
    else origins.add(parent);
  }
  return [...origins];
}

function isResized({ dw, dh }: Shift): boolean {
  return Math.abs(dw) > 0.5 || Math.abs(dh) > 0.5;
}

/** Down to where a box is larger and nothing in it explains that. */
function deepest(a: Pairing['a'], shifts: Shifts, from: NodeIndex): NodeIndex {
  let at = from;
  for (;;) {
    const { dw, dh } = shifts.get(at)!;
    if (Math.abs(dw) > 0.5 || Math.abs(dh) <= 0.5) return at;
    const grown = a.children[at]!.filter((child) => Math.abs((shifts.get(child) ?? STILL).dh) > 0.5);
    if (grown.length !== 1) return at;
    at = grown[0]!;
  }
}

/** How far a whole page's part below an element moved: told once, of the largest thing around that grew by it. */
export interface Growth {
  readonly node: NodeIndex;
  readonly from: number;
  readonly to: number;
  /** What stands below moved by so much, CSS px; 0 where nothing does. */
  readonly below: number;
}

/** The outermost box around an element, or itself, that is higher or lower by what happened in it. */
export function growthOf({ a, b, toB }: Pairing, shifts: Shifts, from: NodeIndex): Growth | null {
  let node = -1;
  for (let at = from; at >= 0 && a.view.tag(at) !== 'body'; at = a.view.parent(at)) {
    if (toB[at]! < 0) continue;
    const shift = shifts.get(at);
    if (!shift || Math.abs(shift.dh) <= 0.5) {
      if (at !== from) break;
      continue;
    }
    node = at;
  }
  if (node < 0) return null;
  const heightIn = (side: { box: (i: NodeIndex) => Rect }, i: NodeIndex) => Math.round(side.box(i).height);
  const after = a.children[a.view.parent(node)]?.find(
    (sibling) => sibling > node && toB[sibling]! >= 0 && a.isShown[sibling],
  );
  const dh = shifts.get(node)!.dh;
  const by = after === undefined ? 0 : (shifts.get(after)?.dy ?? 0) - (shifts.get(node)?.dy ?? 0);
  return {
    node,
    from: heightIn(a.view, node),
    to: heightIn(b.view, toB[node]!),
    below: Math.abs(by - dh) <= 2 ? Math.round(by) : 0,
  };
}
