import type { Span } from '../../core/geometry/span.js';
import { showsSame, type Sample } from '../../core/sweep/sample.js';
import { bothSides, shownWidths } from '../../core/sweep/shown-widths.js';

/** So many sizes are loaded anew to see whether they show the same. */
const MOST_CONFIRMED = 40;

/**
 * Sizes on both sides of where a defect begins or ends that show other defects when the page is loaded anew. Those that are rendered
 * for what they show are left out.
 */
export async function differingAnew(
  samples: readonly Sample[],
  range: Span,
  again: (size: number) => Promise<Sample>,
  anew: (size: number) => Promise<Sample>,
): Promise<number[]> {
  const inPlace = new Map(samples.map((sample) => [sample.width, sample]));
  const rendered = new Set(shownWidths(samples, () => true, range));
  const sizes = bothSides(samples, range).filter((size) => !rendered.has(size));
  const differs = (sample: Sample) => {
    const before = inPlace.get(sample.width);
    return before !== undefined && !showsSame(before, sample);
  };
  const differing = async (wanted: readonly number[], look: (size: number) => Promise<Sample>) =>
    (await Promise.all(wanted.map(look))).filter(differs).map(({ width }) => width);
  // A page may show something else on a second visit.
  return differing(await differing([...sizes.slice(0, MOST_CONFIRMED), range.min], again), anew);
}
