import type { PagePlaces } from '../../core/compare/packed-places.js';
import type { Comparison } from '../../run/compare/record.js';

/** What the view of a comparison is given. */
export interface CompareData extends Comparison {
  /** By page: where headings, landmarks and texts are on each render, what brings pictures to the same place. */
  readonly places: Readonly<Record<string, PagePlaces>>;
}
