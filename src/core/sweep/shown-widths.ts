import type { Span } from '../geometry/span.js';
import type { Sample } from './sample.js';
import { spansByKey } from './spans.js';

/**
 * The widths that show some of the defects that a search found, rising: of errors and warnings the end of their spans at which they go
 * farthest, and the next width that is free of them, the wider one where there is one; of notices one width, where none of these shows
 * them; and both ends of the range.
 */
export function shownWidths(
  samples: readonly Sample[],
  isWanted: (key: string) => boolean,
  range: Span,
): number[] {
  const at = new Map(samples.map((sample) => [sample.width, sample]));
  const widths = new Set([range.min, range.max]);
  const wanted = [...spansByKey(samples)].filter(([key]) => isWanted(key));
  const notices = wanted.filter(([key]) => isNotice(samples, key));
  for (const [key, spans] of wanted) {
    if (isNotice(samples, key)) continue;
    const { width, span } = worstEnd(spans, (end) => at.get(end)?.seen.get(key)?.px ?? 0);
    widths.add(width);
    if (span.max < range.max) widths.add(span.max + 1);
    else if (span.min > range.min) widths.add(span.min - 1);
  }
  for (const [key, spans] of notices) {
    if (![...widths].some((width) => at.get(width)?.seen.has(key) === true)) widths.add(spans[0]!.min);
  }
  return [...widths].sort((a, b) => a - b);
}

/** The widths on both sides of where the spans of errors and warnings begin and end inside of a range, rising. */
export function bothSides(samples: readonly Sample[], range: Span): number[] {
  const widths = new Set<number>();
  for (const [key, spans] of spansByKey(samples)) {
    if (isNotice(samples, key)) continue;
    for (const { min, max } of spans) {
      if (min > range.min) widths.add(min - 1).add(min);
      if (max < range.max) widths.add(max).add(max + 1);
    }
  }
  return [...widths].sort((a, b) => a - b);
}

/** Whether a defect is a notice at every width that shows it. */
function isNotice(samples: readonly Sample[], key: string): boolean {
  return samples.every(({ seen }) => (seen.get(key)?.severity ?? 'notice') === 'notice');
}

function worstEnd(spans: readonly Span[], extent: (width: number) => number): { width: number; span: Span } {
  const ends = spans.flatMap((span) => [
    { width: span.min, span },
    { width: span.max, span },
  ]);
  return ends.reduce((a, b) => (extent(b.width) > extent(a.width) ? b : a));
}
