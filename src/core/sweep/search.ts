import { nextWidths } from './next-widths.js';
import type { Sample } from './sample.js';

/** Between two widths that are known to matter, so far apart at most to begin with, CSS px. */
const LARGEST_STEP = 32;
/** And in so many parts at least, so that there are three layouts to lie on a line. */
const LEAST_PARTS = 3;

/** Of all layouts, so many may be spent on where something might come and go: the others are for where something begins or ends. */
const DOUBTFUL_SHARE = 0.8;

export interface SearchOptions {
  /** Whole CSS px, both ends included. */
  readonly from: number;
  readonly to: number;
  /** Widths at which something is known to begin: at them and at the one before it is looked first. */
  readonly begins: readonly number[];
  /** Look at every width. */
  readonly every: boolean;
  /** Is told of the two layouts at each width at which something is known to begin, while all of them is there. */
  readonly onBegin?: ((before: Sample, after: Sample) => void) | undefined;
  /** Whether it makes sense to go on after the first layouts. */
  readonly isSteady?: ((samples: readonly Sample[]) => Promise<boolean>) | undefined;
  /** So many layouts at most. */
  readonly most: number;
}

export interface Searched {
  /** By width, rising. */
  readonly samples: readonly Sample[];
  /** Whether every gap between them is closed; else more may come and go in those that are not. */
  readonly isWhole: boolean;
  /** Whether what begins or ends between two of them does so between neighbouring widths. */
  readonly isExact: boolean;
}

/**
 * Looks at as few widths as it takes to know all of them. Changes of form and defects are found to the px where they differ
 * between two widths that were looked at, or where a box bends between them; what comes and goes within a gap without either stays unseen.
 * @param look is asked for several widths at once, each once
 */
export async function search(
  look: (width: number) => Promise<Sample>,
  { from, to, begins, every, most, onBegin, isSteady }: SearchOptions,
): Promise<Searched> {
  if (every) return searchEvery(look, { from, to, begins, onBegin, isSteady });
  let samples: Sample[] = [];
  let wanted = firstWidths(from, to, begins);
  for (;;) {
    const found = await Promise.all(wanted.map(look));
    const isFirst = samples.length === 0;
    samples = [...samples, ...found].sort((a, b) => a.width - b.width);
    if (isFirst && onBegin) tellBegins(samples, begins, onBegin);
    if (isFirst && isSteady && !(await isSteady(samples))) return { samples, isWhole: false, isExact: false };
    const next = nextWidths(samples);
    const isExact = next.differing.length === 0;
    if (isExact && next.doubtful.length === 0) return { samples, isWhole: true, isExact };
    const differing = next.differing.slice(0, Math.max(0, most - samples.length));
    const left = Math.floor(DOUBTFUL_SHARE * most) - samples.length - differing.length;
    wanted = [...differing, ...next.doubtful.slice(0, Math.max(0, left))].sort((a, b) => a - b);
    if (wanted.length === 0) return { samples, isWhole: false, isExact };
    forget(samples, wanted);
  }
}

/** So many widths at once, where all are looked at: no more layouts than these are held. */
const ROUND = 32;

async function searchEvery(
  look: (width: number) => Promise<Sample>,
  { from, to, begins, onBegin, isSteady }: Omit<SearchOptions, 'every' | 'most'>,
): Promise<Searched> {
  const samples: Sample[] = [];
  for (let start = from; start <= to; start += ROUND) {
    const round = widthsBetween(start, Math.min(to, start + ROUND - 1));
    const found = await Promise.all(round.map(look));
    if (onBegin) tellBegins([...samples.slice(-1), ...found], begins, onBegin);
    samples.push(...found);
    forget(samples, [start + ROUND]);
  }
  const isWhole = isSteady === undefined || (await isSteady(samples));
  return { samples, isWhole, isExact: isWhole };
}

function tellBegins(
  samples: readonly Sample[],
  begins: readonly number[],
  onBegin: (before: Sample, after: Sample) => void,
): void {
  const known = new Set(begins.map(Math.ceil));
  samples.forEach((sample, i) => {
    const before = samples[i - 1];
    if (before && before.width === sample.width - 1 && known.has(sample.width)) onBegin(before, sample);
  });
}

function widthsBetween(from: number, to: number): number[] {
  return Array.from({ length: to - from + 1 }, (_, i) => from + i);
}

function firstWidths(from: number, to: number, begins: readonly number[]): number[] {
  const known = begins
    .flatMap((width) => [Math.ceil(width) - 1, Math.ceil(width)])
    .filter((width) => width > from && width < to);
  const corners = [...new Set([from, ...known, to])].sort((a, b) => a - b);
  return corners.flatMap((corner, i) => {
    const next = corners[i + 1];
    if (next === undefined) return [corner];
    const gap = next - corner;
    const parts = gap <= LEAST_PARTS ? 1 : Math.max(LEAST_PARTS, Math.ceil(gap / LARGEST_STEP));
    return Array.from({ length: parts }, (_, part) => Math.round(corner + (gap * part) / parts));
  });
}

/** Lets go of the places in layouts that no open gap is near any more. */
function forget(samples: readonly Sample[], wanted: readonly number[]): void {
  /** A gap is judged by its ends and by the next one on either side. */
  const near = 2;
  const isNear = samples.map(() => false);
  let at = 0;
  for (const width of wanted) {
    while (at < samples.length && samples[at]!.width < width) at++;
    for (let i = Math.max(0, at - 1 - near); i <= Math.min(samples.length - 1, at + near); i++)
      isNear[i] = true;
  }
  samples.forEach((sample, i) => {
    const isEdge = [samples[i - 1], samples[i + 1]].some((other) => other && other.form !== sample.form);
    if (!isNear[i] && !isEdge) sample.trace = null;
  });
}
