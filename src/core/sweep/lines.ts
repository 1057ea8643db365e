import type { SnapshotView } from '../layout/view.js';
import type { Sample } from './sample.js';
import type { Form } from './trace.js';

/** Used values are kept in 64ths of a px, and a box adds up several of them. CSS px. */
const ROUNDING = 0.1;
/** Tables deal out whole px, and scripts that draw give their canvas whole ones. */
const ROUNDING_TO_PX = 1.1;
/** Two slopes that differ by less are one, px a px. */
const LEAST_BEND = 0.02;

/** What of a layout does not lie on the line through two others. */
export interface Stray {
  /** The element's number. */
  readonly element: number;
  /** Index into its place: edge or size. */
  readonly which: 0 | 1;
}

/**
 * What of the middle one of three layouts of one form does not lie on the lines through the outer ones. Where nothing strays, no
 * box changes otherwise than linearly between them.
 * @param most so many are enough
 */
export function strays(left: Sample, middle: Sample, right: Sample, most = Infinity): Stray[] {
  const share = (middle.width - left.width) / (right.width - left.width);
  const found: Stray[] = [];
  if (!middle.trace) return found;
  for (const [element, at] of middle.trace.places) {
    const before = left.trace?.places.get(element);
    const after = right.trace?.places.get(element);
    if (!before || !after) continue;
    const form = middle.trace.forms.get(element);
    // How it is laid out nobody sees; what it does to others is followed with them.
    if (form?.isSeen === false) continue;
    const rounding = form && isInWholePx(form, middle.trace.view) ? ROUNDING_TO_PX : ROUNDING;
    for (const which of [0, 1] as const) {
      const expected = before[which] + share * (after[which] - before[which]);
      if (Math.abs(at[which] - expected) > rounding) found.push({ element, which });
      if (found.length >= most) return found;
    }
  }
  return found;
}

function isInWholePx({ display, node }: Form, view: SnapshotView): boolean {
  return display.startsWith('table') || view.tag(node) === 'canvas';
}

/**
 * Where the lines of a place from both sides meet: the width at which it begins to go by another one.
 * @returns null where they don't meet between the inner two
 */
export function meeting(
  { element, which }: Stray,
  [first, second, third, fourth]: readonly [Sample, Sample, Sample, Sample],
): number | null {
  const value = (sample: Sample) => sample.trace?.places.get(element)?.[which] ?? NaN;
  const rise = (value(second) - value(first)) / (second.width - first.width);
  const fall = (value(fourth) - value(third)) / (fourth.width - third.width);
  if (!(Math.abs(rise - fall) >= LEAST_BEND)) return null;
  const at = (value(third) - fall * third.width - value(second) + rise * second.width) / (rise - fall);
  return at > second.width && at < third.width ? at : null;
}
