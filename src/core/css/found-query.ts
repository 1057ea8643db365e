import type { SheetQuery } from './sheet-queries.js';

/** A condition on the size of the viewport, or of a container, that a page names, wherever it stands. */
export interface FoundQuery {
  /** `media` and `container` rules, conditions of imported, linked and embedded sheets, of sources of pictures, lists of sizes, and what scripts ask for. */
  readonly kind: SheetQuery['kind'] | 'link' | 'style' | 'source' | 'sizes' | 'script';
  /** As it is written, its white space folded. */
  readonly text: string;
  /** `file:line`, or the element that names it; null where neither is known. */
  readonly source: string | null;
  readonly selectors: readonly string[];
  /** The conditions around it, from the outside in. */
  readonly within: readonly string[];
  /** Of a container query, the uids of the containers that it asks. */
  readonly containers?: readonly number[];
}
