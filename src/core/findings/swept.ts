import { united, type Span } from '../geometry/span.js';
import type { Finding } from './finding.js';
import type { Group } from './sighting-group.js';

/** What a search over sizes found of one page. */
export interface Swept {
  /** By the key of the defect. */
  readonly spans: ReadonlyMap<string, readonly Span[]>;
  /** The largest size that was looked at, CSS px. */
  readonly to: number;
}

/** The sizes at which a defect counts. Of what is held against wider layouts, those count that have a wider one without it. */
export function spansOfGroup(page: string, { rule, key }: Group, { spans, to }: Swept): Finding['spans'] {
  const all = spans.get(key) ?? [];
  const counted = rule.meta.needsFreeWidth ? all.filter(({ max }) => max < to) : all;
  return counted.length > 0 ? { [page]: counted.map(({ min, max }) => [min, max]) } : undefined;
}

/** The spans of several findings that are one, page by page. */
export function joinedSpans(all: readonly Pick<Finding, 'spans'>[]): Finding['spans'] {
  const joined: Record<string, [number, number][]> = {};
  for (const { spans } of all)
    for (const [page, own] of Object.entries(spans ?? {}))
      joined[page] = united([...(joined[page] ?? []), ...own].map(([min, max]) => ({ min, max }))).map(
        ({ min, max }): [number, number] => [min, max],
      );
  return Object.keys(joined).length > 0 ? joined : undefined;
}
