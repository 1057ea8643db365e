import type { Span } from '../geometry/span.js';

/** The widths on both sides of where spans begin and end inside of a range, rising. */
export function bothSides(spans: Iterable<readonly Span[]>, range: Span): number[] {
  const widths = new Set<number>();
  for (const { min, max } of [...spans].flat()) {
    if (min > range.min) widths.add(min - 1).add(min);
    if (max < range.max) widths.add(max).add(max + 1);
  }
  return [...widths].sort((a, b) => a - b);
}
