/** What makes an element fail, by name. Each has a paragraph in docs/causes.md. */
export const CAUSES = [
  'fixed-width',
  'min-width',
  'percent-plus-padding',
  'viewport-width',
  'no-wrap',
  'unbreakable-word',
  'picture-size',
  'grid-tracks',
  'flex-no-shrink',
  'flex-minimum',
  'table-content',
  'wide-margin',
  'negative-margin',
  'offset',
  'positioned',
  'transform',
  'fixed-height',
  'max-height',
  'line-height',
  'text-indent',
  'centred-overflow',
  'clipped-overflow',
  'clip-shape',
  'taller-than-screen',
  'no-room-kept',
  'stacking-order',
  'no-ground',
  'float-not-contained',
  'viewport-meta',
  'media-query-absent',
] as const;
export type CauseName = (typeof CAUSES)[number];

/** Why something fails, and how that is known. */
export interface Cause {
  readonly name: CauseName;
  /** One sentence with the numbers. */
  readonly message: string;
  /** Matches the element that carries the cause. */
  readonly selector: string;
  readonly declaration: Declaration | null;
  /** Undone in the live page, the defect was gone; put back, it was there again. */
  readonly proven: boolean;
}

/** A declaration as its author wrote it. */
export interface Declaration {
  readonly property: string;
  readonly value: string;
  /** The rule's own selector; null for a style attribute. */
  readonly selector: string | null;
  /** `file:line`, followed through a source map where there is one; null where it stands in no file. */
  readonly source: string | null;
}
