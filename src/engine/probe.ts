import type { Declaration } from '../core/cause/cause.js';
import type { LayoutSnapshot } from '../core/layout/snapshot.js';

/** The live page behind a snapshot, for experiments. Nodes are those of the snapshot that was captured last. */
export interface Probe {
  /** The page as it would be laid out with other styles on some elements; they are taken back before this returns. */
  layoutWith(nodes: readonly number[], styles: Readonly<Record<string, string>>): Promise<LayoutSnapshot>;
  /** The author's declaration of a property that is in force on an element; null where there is none. */
  declarationOf(node: number, property: string): Promise<Declaration | null>;
}
