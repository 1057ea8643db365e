import type { Sample } from './sample.js';
import type { Form } from './trace.js';

/** What changes by less is the same at both widths, px a px. */
const LEAST_SLOPE = 0.02;
/** A row breaks when its children want a 64th of a px more than there is: the guess falls just short of that. */
const ROUNDING = 0.01;
/** What a defect shrinks to before it is none: rules begin to count at one px, and most of them at three. CSS px. */
const LEAST_SEEN = [0.5, 2.5];

/**
 * Where what differs between two layouts is likely to begin or end: a row breaks where the room that is left in it has gone, and a defect ends
 * where it has shrunk to nothing; both are linear functions of the width, so two layouts on one side say where.
 * @param samples by width, rising
 * @param i the gap between samples i and i + 1
 * @returns widths inside of the gap, CSS px, that lie on the edge itself: it is between whole ones
 */
export function turnings(samples: readonly Sample[], i: number): number[] {
  const [left, right] = [samples[i]!, samples[i + 1]!];
  const isInside = (at: number) => at > left.width && at < right.width;
  return [
    ...turningsFrom(right, samples[i + 2], left, isInside),
    ...turningsFrom(left, samples[i - 1], right, isInside),
  ];
}

/** @param beyond the next layout on the side of `near`; @param other the one on the other side of the gap */
function turningsFrom(
  near: Sample,
  beyond: Sample | undefined,
  other: Sample,
  isInside: (at: number) => boolean,
): number[] {
  if (!beyond) return [];
  const zero = (now: number, further: number): number => {
    const slope = (further - now) / (beyond.width - near.width);
    return Math.abs(slope) < LEAST_SLOPE ? NaN : near.width - now / slope;
  };
  const found: number[] = [];
  for (const [number, form] of near.trace?.forms ?? []) {
    const further = beyond.trace?.forms.get(number);
    const row = brokenRow(form, other.trace?.forms.get(number));
    if (row < 0 || further?.rows.join() !== form.rows.join()) continue;
    found.push(zero(form.room[row]!, further.room[row]!) - ROUNDING);
  }
  for (const [key, { px }] of near.seen) {
    const further = beyond.seen.get(key)?.px ?? null;
    if (other.seen.has(key) || px === null || further === null) continue;
    const at = LEAST_SEEN.map((least) => zero(px - least, further - least)).find(isInside);
    if (at !== undefined) found.push(at);
  }
  return found.filter(isInside);
}

/** The first row that holds more in one form of an element than in another; −1 where none does. */
function brokenRow(fuller: Form, other: Form | undefined): number {
  if (!other || other.rows.length === 0) return -1;
  const row = fuller.rows.findIndex((count, i) => count !== other.rows[i]);
  return row >= 0 && fuller.rows[row]! > (other.rows[row] ?? 0) ? row : -1;
}
