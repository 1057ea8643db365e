import type { NodeIndex } from '../../layout/view.js';
import type { Pairing } from '../pairing.js';
import type { Side } from '../side.js';
import type { DifferenceKind, Single } from './difference.js';

/** Lengths that differ by no more are equal, CSS px. */
export interface Tolerance {
  /** How far a box stands elsewhere in its container. */
  readonly moved: number;
  /** How much wider or higher it is. */
  readonly resized: number;
}

/** Rounding of the browser is no difference. */
export const ROUNDING: Tolerance = { moved: 1, resized: 1 };

/** How elements are compared. */
export interface Measure {
  readonly tolerance: Tolerance;
  /** Kinds that are told. */
  readonly kinds: { readonly has: (kind: DifferenceKind) => boolean };
}

/** Elements that are compared otherwise, with all that stands in them: their rows in each layout. */
export interface Part extends Measure {
  readonly a: ReadonlySet<NodeIndex>;
  readonly b: ReadonlySet<NodeIndex>;
}

export interface StructureOptions extends Measure {
  /** Elements that are left out with all that stands in them, by the row, in each layout. */
  readonly without: { readonly a: ReadonlySet<NodeIndex>; readonly b: ReadonlySet<NodeIndex> };
  /** What is compared otherwise than the page; nothing unless told. */
  readonly parts?: readonly Part[];
}

/** How each element is compared: as the innermost part around it says, of several for one element the last; else as the page is. */
export class Measures {
  private readonly inA: Int32Array | null;
  private readonly inB: Int32Array | null;

  constructor(
    { a, b }: Pairing,
    private readonly whole: Measure,
    private readonly parts: readonly Part[],
  ) {
    this.inA = partsIn(
      a,
      parts.map((part) => part.a),
    );
    this.inB = partsIn(
      b,
      parts.map((part) => part.b),
    );
  }

  /** @param i a row of `a` */
  toleranceOf(i: NodeIndex): Tolerance {
    return this.at(this.inA, i).tolerance;
  }

  /** Whether a difference is of a kind that is told there: where it was, or where it is new. */
  tells({ kind, a, b }: Single): boolean {
    return (a >= 0 ? this.at(this.inA, a) : this.at(this.inB, b)).kinds.has(kind);
  }

  private at(parts: Int32Array | null, i: NodeIndex): Measure {
    return parts === null || i < 0 ? this.whole : (this.parts[parts[i]!] ?? this.whole);
  }
}

/** By the row, the place of the part that it is in; −1 where it is in none. Null where there are no parts. */
function partsIn({ view }: Side, parts: readonly ReadonlySet<NodeIndex>[]): Int32Array | null {
  if (parts.every((rows) => rows.size === 0)) return null;
  const found = new Int32Array(view.count);
  for (let i = 0; i < view.count; i++) {
    const own = parts.findLastIndex((rows) => rows.has(i));
    const parent = view.parent(i);
    found[i] = own >= 0 ? own : parent < 0 ? -1 : found[parent]!;
  }
  return found;
}
