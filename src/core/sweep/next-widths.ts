import { meeting, strays } from './lines.js';
import { isAlike, type Sample } from './sample.js';
import { turnings } from './turning.js';

/** Of three layouts on a line the outer ones must lie so far apart from the middle one, as a share of the whole. */
const LEAST_SHARE = 0.2;
/** Bends that are looked for at once in one gap. */
const MOST_BENDS = 2;

/** Widths at which something is likely to begin or end that are looked at at once in one gap. */
const MOST_TURNINGS = 2;

/** What there is to look at next, each rising. */
export interface NextWidths {
  /** In gaps between layouts that differ: something begins or ends there. */
  readonly differing: readonly number[];
  /** In gaps in which something may come and go. */
  readonly doubtful: readonly number[];
}

/**
 * The widths to look at next, so that after some rounds all that changes between two of the samples is known: none where no gap
 * between neighbours is left open. A gap is closed when its ends are neighbouring widths, or are of one form, show the same
 * defects, and three layouts about it lie on lines.
 * @param samples by width, rising, at least two
 */
export function nextWidths(samples: readonly Sample[]): NextWidths {
  const closed = samples.slice(1).map((_, i) => isClosed(samples, i));
  const differing: number[] = [];
  const doubtful: number[] = [];
  samples.slice(1).forEach((right, i) => {
    const left = samples[i]!;
    if (closed[i]) return;
    if (isAlike(left, right)) doubtful.push(...inside(left, right, bends(samples, i, closed)));
    else differing.push(...inside(left, right, turnings(samples, i).slice(0, MOST_TURNINGS)));
  });
  return { differing, doubtful };
}

/** The guesses that lie in a gap; its middle where there are none. A guess is taken with its neighbour, which together end the search. */
function inside(left: Sample, right: Sample, guesses: readonly number[]): number[] {
  const found = guesses
    .flatMap((guess) => [Math.floor(guess), Math.floor(guess) + 1])
    .filter((width) => width > left.width && width < right.width);
  return found.length > 0
    ? [...new Set(found)].sort((a, b) => a - b)
    : [Math.floor((left.width + right.width) / 2)];
}

/** @param i the gap between samples i and i + 1 */
function isClosed(samples: readonly Sample[], i: number): boolean {
  const left = samples[i]!;
  const right = samples[i + 1]!;
  if (right.width - left.width <= 1) return true;
  if (!isAlike(left, right)) return false;
  return isOnLines(samples[i - 1], left, right) || isOnLines(left, right, samples[i + 2]);
}

function isOnLines(left: Sample | undefined, middle: Sample, right: Sample | undefined): boolean {
  if (!left || !right) return false;
  if (left.form !== middle.form || middle.form !== right.form) return false;
  const share = (middle.width - left.width) / (right.width - left.width);
  if (Math.min(share, 1 - share) < LEAST_SHARE) return false;
  return strays(left, middle, right, 1).length === 0;
}

/** Where boxes begin to go by other lines in a gap between two that are closed: what most of them say first. */
function bends(samples: readonly Sample[], i: number, closed: readonly boolean[]): number[] {
  const [first, second, third, fourth] = [samples[i - 1], samples[i]!, samples[i + 1]!, samples[i + 2]];
  if (!first || !fourth || !closed[i - 1] || !closed[i + 1]) return [];
  if (first.form !== second.form || third.form !== fourth.form) return [];
  const votes = new Map<number, number>();
  for (const stray of [...strays(first, second, third), ...strays(second, third, fourth)]) {
    const at = meeting(stray, [first, second, third, fourth]);
    if (at !== null) votes.set(Math.floor(at), (votes.get(Math.floor(at)) ?? 0) + 1);
  }
  return [...votes.entries()]
    .sort((a, b) => b[1] - a[1])
    .slice(0, MOST_BENDS)
    .map(([at]) => at);
}
