/** A closed interval of widths in CSS px. `max` may be Infinity. */
export interface Span {
  readonly min: number;
  readonly max: number;
}

export function includes(span: Span, width: number): boolean {
  return width >= span.min && width <= span.max;
}

/**
 * The widths from a sorted or unsorted list, written as spans over the neighbours that are in it:
 * with `all` = [320, 390, 768] and `widths` = [320, 390] that is [320..390].
 */
export function spansOf(widths: readonly number[], all: readonly number[]): Span[] {
  const wanted = new Set(widths);
  const spans: Span[] = [];
  let open: { min: number; max: number } | null = null;
  for (const width of [...new Set(all)].sort((a, b) => a - b)) {
    if (wanted.has(width)) {
      if (open) open.max = width;
      else spans.push((open = { min: width, max: width }));
    } else {
      open = null;
    }
  }
  return spans;
}

/** The same widths in as few spans as do, rising. */
export function united(spans: readonly Span[]): Span[] {
  const found: { min: number; max: number }[] = [];
  for (const { min, max } of [...spans].sort((a, b) => a.min - b.min)) {
    const last = found.at(-1);
    if (last && min <= last.max + 1) last.max = Math.max(last.max, max);
    else found.push({ min, max });
  }
  return found;
}

/** The widths inside of a range at which what holds in spans begins to hold or not to: each the first of its stretch. */
export function beginsOf(spans: readonly Span[], range: Span): number[] {
  return spans
    .flatMap(({ min, max }) => [min, max + 1])
    .filter((width) => width > range.min && width <= range.max);
}
