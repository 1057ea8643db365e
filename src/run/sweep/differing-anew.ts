import type { Span } from '../../core/geometry/span.js';
import { isAlike, showsSame, type Sample } from '../../core/sweep/sample.js';
import { bothSides, shownWidths } from '../../core/sweep/shown-widths.js';

/** So many sizes are loaded anew to see whether they show the same. */
const MOST_CONFIRMED = 40;
/** Of these, so many for what scripts ask for. */
const MOST_ASKED = 12;

/**
 * Sizes that show other defects, or another layout, when the page is loaded anew: the smallest one, those on both sides of where a script
 * has asked for a size, and those on both sides of where a defect begins or ends. Of the last, those that are rendered for what they show
 * are left out.
 * @param asked where conditions that scripts ask for begin to hold or not to, CSS px
 */
export async function differingAnew(
  samples: readonly Sample[],
  asked: readonly number[],
  range: Span,
  again: (size: number) => Promise<Sample>,
  anew: (size: number) => Promise<Sample>,
): Promise<number[]> {
  const inPlace = new Map(samples.map((sample) => [sample.width, sample]));
  const rendered = new Set(shownWidths(samples, () => true, range));
  const sizes = new Set([
    range.min,
    ...asked.flatMap((begin) => [begin - 1, begin]).slice(0, MOST_ASKED),
    ...bothSides(samples, range).filter((size) => !rendered.has(size)),
  ]);
  const wanted = [...sizes].filter((size) => inPlace.has(size)).slice(0, MOST_CONFIRMED);
  const differs = (sample: Sample) => !isAlike(inPlace.get(sample.width)!, sample);
  const firsts = (await Promise.all(wanted.map(again))).filter(differs);
  // A page may show something else on a second visit; and one that never shows the same layout twice shows no other one when loaded.
  const seconds = await Promise.all(firsts.map(({ width }) => anew(width)));
  return seconds
    .filter(
      (sample, i) =>
        differs(sample) &&
        (sample.form === firsts[i]!.form || !showsSame(inPlace.get(sample.width)!, sample)),
    )
    .map(({ width }) => width);
}
