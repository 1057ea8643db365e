import type { Span } from '../geometry/span.js';
import type { Condition, MediaEnvironment } from './media-query.js';

/**
 * The whole widths of a range, CSS px, at which a condition holds. What asks for something unknown counts as held where all else holds,
 * since the width decides it then.
 */
export function spansWhereHeld(condition: Condition, environment: MediaEnvironment, range: Span): Span[] {
  const corners = new Set([range.min, range.max]);
  for (const threshold of condition.thresholds(environment))
    for (const width of [Math.floor(threshold), Math.ceil(threshold)])
      for (const near of [width - 1, width, width + 1])
        if (near >= range.min && near <= range.max) corners.add(near);
  const sorted = [...corners].sort((a, b) => a - b);
  const spans: { min: number; max: number }[] = [];
  let open: { min: number; max: number } | null = null;
  for (const [i, width] of sorted.entries()) {
    if (condition.holds(width, environment) === false) {
      open = null;
      continue;
    }
    // Between two corners nothing changes.
    const next = sorted[i + 1];
    const max = next === undefined || condition.holds(next, environment) !== false ? width : next - 1;
    if (open) open.max = max;
    else spans.push((open = { min: width, max }));
  }
  return spans;
}
