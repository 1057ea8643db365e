import type { FoundQuery } from '../css/found-query.js';
import type { Span } from '../geometry/span.js';

/** How a page writes its media queries. */
export interface QueryStyle {
  readonly unit: 'px' | 'em' | 'rem';
  /** `(width <= 40em)` in place of `(max-width: 40em)`. */
  readonly isRange: boolean;
  /** What is added to a whole px at an upper end, CSS px: some write 767.98. */
  readonly fraction: number;
}

/** Most of what a page's own queries do; `px` and `max-width` where it has none. */
export function queryStyleOf(queries: readonly FoundQuery[]): QueryStyle {
  const texts = queries.filter(({ kind }) => kind !== 'container').map(({ text }) => text);
  const units = texts.flatMap((text) => [...text.matchAll(/\d(px|r?em)\b/g)].map((match) => match[1]!));
  const named = (unit: string) => units.filter((each) => each === unit).length;
  const unit = (['px', 'em', 'rem'] as const).reduce((a, b) => (named(b) > named(a) ? b : a));
  const ranges = texts.filter((text) => /[<>]/.test(text)).length;
  const prefixed = texts.filter((text) => /\b(min|max)-width/.test(text)).length;
  const fraction = /max-width:\s*\d+(\.9\d*)px/.exec(texts.join('\n'))?.[1];
  return { unit, isRange: ranges > prefixed, fraction: Number(fraction ?? 0) };
}

/**
 * The media condition that holds at exactly the widths of a span. An end that is the end of what was looked at is left open.
 * @param fontSize what an `em` is in it, CSS px
 */
export function conditionFor(
  span: Span,
  range: Span,
  { unit, isRange, fraction }: QueryStyle,
  fontSize: number,
): string {
  const length = (px: number) => `${unit === 'px' ? px : Number((px / fontSize).toFixed(4))}${unit}`;
  const min = span.min > range.min ? length(span.min) : null;
  const max = span.max < range.max ? length(span.max + fraction) : null;
  if (min === null && max === null) return 'all';
  if (isRange) return `(${min === null ? '' : `${min} <= `}width${max === null ? '' : ` <= ${max}`})`;
  return [min === null ? [] : [`(min-width: ${min})`], max === null ? [] : [`(max-width: ${max})`]]
    .flat()
    .join(' and ');
}
