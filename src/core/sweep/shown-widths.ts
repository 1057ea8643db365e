import { includes, type Span } from '../geometry/span.js';
import { SEVERITIES } from '../sightings/sighting.js';
import type { Sample } from './sample.js';
import { spansByKey } from './spans.js';

/**
 * The widths that show some of the defects that a search found, rising: of errors and warnings the one that shows them worst, and the next width that is free of them, the wider one where there is one; of notices one width, where none of these shows
 * them; and both ends of the range.
 */
export function shownWidths(
  samples: readonly Sample[],
  isWanted: (key: string) => boolean,
  range: Span,
): number[] {
  const at = new Map(samples.map((sample) => [sample.width, sample]));
  const widths = new Set([range.min, range.max]);
  const wanted = [...spansByKey(samples)].filter(([key]) => isWanted(key));
  const notices = wanted.filter(([key]) => isNotice(samples, key));
  for (const [key, spans] of wanted) {
    if (isNotice(samples, key)) continue;
    const { width } = worstOf(samples, key);
    const span = spans.find((each) => includes(each, width))!;
    widths.add(width);
    if (span.max < range.max) widths.add(span.max + 1);
    else if (span.min > range.min) widths.add(span.min - 1);
  }
  for (const [key, spans] of notices) {
    if (![...widths].some((width) => at.get(width)?.seen.has(key) === true)) widths.add(spans[0]!.min);
  }
  return [...widths].sort((a, b) => a - b);
}

/** The widths on both sides of where spans begin and end inside of a range, rising: those of errors and warnings, then those of notices. */
export function bothSides(samples: readonly Sample[], range: Span): number[] {
  const spans = [...spansByKey(samples)];
  const sidesOf = (isOfNotices: boolean) =>
    spans
      .filter(([key]) => isNotice(samples, key) === isOfNotices)
      .flatMap(([, own]) => own.flatMap((span) => sidesWithin(span, range)))
      .sort((a, b) => a - b);
  return [...new Set([...sidesOf(false), ...sidesOf(true)])];
}

function sidesWithin({ min, max }: Span, range: Span): number[] {
  return [...(min > range.min ? [min - 1, min] : []), ...(max < range.max ? [max, max + 1] : [])];
}

/** Whether a defect is a notice at every width that shows it. */
function isNotice(samples: readonly Sample[], key: string): boolean {
  return samples.every(({ seen }) => (seen.get(key)?.severity ?? 'notice') === 'notice');
}

/** The sample that shows a defect worst: by its severity, then by how far it goes, then the narrower one. */
function worstOf(samples: readonly Sample[], key: string): Sample {
  const rank = ({ seen }: Sample) => SEVERITIES.indexOf(seen.get(key)!.severity);
  const px = ({ seen }: Sample) => seen.get(key)!.px ?? 0;
  return samples
    .filter(({ seen }) => seen.has(key))
    .reduce((a, b) => (rank(b) < rank(a) || (rank(b) === rank(a) && px(b) > px(a)) ? b : a));
}
