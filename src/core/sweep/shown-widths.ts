import type { Span } from '../geometry/span.js';
import type { Sample } from './sample.js';

/**
 * The widths that show what a search found, rising: of each defect the end of its spans at which it goes farthest, and the next width
 * that is free of it, the wider one where there is one; and both ends of the range.
 */
export function shownWidths(
  samples: readonly Sample[],
  spans: Iterable<readonly [key: string, spans: readonly Span[]]>,
  range: Span,
): number[] {
  const at = new Map(samples.map((sample) => [sample.width, sample]));
  const widths = new Set([range.min, range.max]);
  for (const [key, all] of spans) {
    const extent = (width: number) => at.get(width)?.seen.get(key) ?? 0;
    const ends = all.flatMap((span) => [
      { width: span.min, span },
      { width: span.max, span },
    ]);
    const [worst] = ends.sort((a, b) => extent(b.width) - extent(a.width) || a.width - b.width);
    if (!worst) continue;
    widths.add(worst.width);
    const { min, max } = worst.span;
    if (max < range.max) widths.add(max + 1);
    else if (min > range.min) widths.add(min - 1);
  }
  return [...widths].sort((a, b) => a - b);
}
