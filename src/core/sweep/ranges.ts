import type { Span } from '../geometry/span.js';

/** A range of widths with its name. */
export interface RangeLabel {
  readonly label: string;
  /** CSS px, both ends included. */
  readonly span: Span;
}

/** Named ranges as the page's own media queries cut them: `below 720`, `720 to 1023`, `from 1024`. */
export function rangesBetween(begins: readonly number[], range: Span): RangeLabel[] {
  const corners = [range.min, ...begins.filter((width) => width > range.min && width <= range.max)];
  return corners.map((min, i) => {
    const next = corners[i + 1];
    const max = next === undefined ? range.max : next - 1;
    const label =
      corners.length === 1
        ? 'every width'
        : i === 0
          ? `below ${next!}`
          : next === undefined
            ? `from ${min}`
            : `${min} to ${max}`;
    return { label, span: { min, max } };
  });
}

/** More names say less than the widths themselves. */
const MOST_LABELS = 2;

/** The labels of the ranges that some spans reach into, each once; none where they reach into many. */
export function labelsAcross(ranges: readonly RangeLabel[], spans: readonly Span[]): string[] {
  const reached = ranges.filter((range) =>
    spans.some(({ min, max }) => min <= range.span.max && max >= range.span.min),
  );
  const labels = [...new Set(reached.map(({ label }) => label))];
  return reached.length === ranges.length || labels.length > MOST_LABELS ? [] : labels;
}

/** The label of the range that a width lies in; null where it lies in none. */
export function labelAt(ranges: readonly RangeLabel[], width: number): string | null {
  return ranges.find(({ span }) => width >= span.min && width <= span.max)?.label ?? null;
}
