import { unguarded } from '../../core/sweep/query-report.js';
import type { FindingRecord } from '../manifest.js';
import { queryBegins } from './query-begins.js';
import type { PageSweep, SweepRecord } from './search-page.js';

/** More spans than these are no range that a media query is written for. */
const MOST_SPANS = 3;

/** A finding with the media conditions that would contain it, where it shows at some widths of the range and not at others. */
export function withConditions(
  finding: FindingRecord,
  page: string,
  { record: { axis, from, to }, conditionFor }: PageSweep,
): FindingRecord {
  const spans = finding.spans?.[page] ?? [];
  if (axis !== 'width' || spans.length === 0 || spans.length > MOST_SPANS) return finding;
  if (spans.some((span) => isWhole(span, { from, to }))) return finding;
  return {
    ...finding,
    conditions: spans.flatMap(([first, last]) => {
      const condition = conditionFor({ min: first, max: last });
      if (condition === null) return [];
      const source = finding.cause?.declaration?.source ?? null;
      const ends = last < to ? { fails: last, right: last + 1 } : { fails: first, right: first - 1 };
      return [{ page, span: [first, last] as [number, number], condition, source, ...ends }];
    }),
  };
}

/** What a search found, with the widths at which something breaks and no media query is near. */
export function withUnguarded(
  record: SweepRecord,
  page: string,
  findings: readonly FindingRecord[],
): SweepRecord {
  const { problems } = record;
  if (!problems) return record;
  const begins = queryBegins(record);
  const breaks = findings
    .filter(({ severity }) => severity !== 'notice')
    .flatMap(({ selector, spans }) =>
      (spans?.[page] ?? []).flatMap((span) => {
        const nearest = isWhole(span, record) ? null : unguarded({ min: span[0], max: span[1] }, begins);
        return nearest === null ? [] : [`${selector} breaks from ${span[0]} to ${span[1]} px; ${nearest}`];
      }),
    );
  return { ...record, problems: [...problems, ...breaks] };
}

function isWhole(
  [min, max]: readonly [number, number],
  { from, to }: Pick<SweepRecord, 'from' | 'to'>,
): boolean {
  return min === from && max === to;
}
