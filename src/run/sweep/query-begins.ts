import { beginsOf } from '../../core/geometry/span.js';
import type { Manifest } from '../manifest.js';

type SweepRecord = NonNullable<Manifest['sweep']>[number];

/** The sizes of a search at which some query of the page begins to hold or not to, each once. */
export function queryBegins({
  queries = [],
  from,
  to,
}: Pick<SweepRecord, 'queries' | 'from' | 'to'>): number[] {
  const spans = queries.flatMap((query) => query.spans ?? []).map(([min, max]) => ({ min, max }));
  return [...new Set(beginsOf(spans, { min: from, max: to }))];
}
