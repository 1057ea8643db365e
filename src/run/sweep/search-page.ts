import type { Span } from '../../core/geometry/span.js';
import { knownBegins } from '../../core/sweep/begins.js';
import { changesBetween, changesText } from '../../core/sweep/changes.js';
import { bothSides } from '../../core/sweep/confirm.js';
import { environmentOf } from '../../core/sweep/environment.js';
import type { Sample } from '../../core/sweep/sample.js';
import { search, type Searched } from '../../core/sweep/search.js';
import { shownWidths } from '../../core/sweep/shown-widths.js';
import { spansByKey } from '../../core/sweep/spans.js';
import type { Manifest } from '../manifest.js';
import { failureText, type Copies } from './copies.js';
import type { SweepRange } from './plan.js';

/** So many layouts a page at most, unless every size is asked for. */
const MOST_LAYOUTS = 500;
/** So many sizes are loaded anew to see whether they show the same. */
const MOST_CONFIRMED = 40;

export type SweepRecord = NonNullable<Manifest['sweep']>[number];

/** What the search over the sizes of one page came to. */
export interface PageSweep {
  readonly record: SweepRecord;
  /** By the key of the defect. */
  readonly spans: ReadonlyMap<string, readonly Span[]>;
  /** The sizes that show some of the defects, rising; of none, both ends of the range. */
  shownFor(isWanted: (key: string) => boolean): readonly number[];
}

/**
 * Searches a page over all sizes of a range: in place, by giving the window one size after another; where loading anew shows something else,
 * by loading it anew for each. What the page or its browser does wrong is in the record.
 */
export async function searchPage(
  page: string,
  copies: Copies,
  range: SweepRange,
  onLooked: (layouts: number) => void,
): Promise<PageSweep> {
  const span: Span = { min: range.from, max: range.to };
  const notes: string[] = [];
  let layouts = 0;
  const counted = (look: (size: number) => Promise<Sample>) => (size: number) => {
    layouts++;
    onLooked(layouts);
    return look(size);
  };
  const options = {
    from: range.from,
    to: range.to,
    every: range.every,
    most: range.every ? Infinity : MOST_LAYOUTS,
  };
  try {
    const queries = await copies.queries();
    const begins = range.axis === 'width' ? knownBegins(queries, environmentOf(range.device), span) : [];
    let searched = await search(counted((size) => copies.inPlace(size)), { ...options, begins });
    const differing = await differingAnew(searched, span, counted((size) => copies.anew(size)));
    if (differing.length > 0) {
      notes.push(
        `loaded anew at ${differing.join(', ')} px it shows something else than when its window is resized to that: the page was loaded anew for each ${range.axis}`,
      );
      searched = await search(counted((size) => copies.anew(size)), { ...options, begins });
    }
    if (!searched.isWhole)
      notes.push(
        `it changes at so many ${range.axis}s that after ${layouts} layouts not all were found: edges and spans are exact to the next ${range.axis} that was looked at`,
      );
    const { samples } = searched;
    const spans = spansByKey(samples);
    return {
      record: {
        ...recordOf(page, range),
        layouts,
        anew: differing.length > 0,
        whole: searched.isWhole,
        edges: edgesOf(samples),
        notes,
      },
      spans,
      shownFor: (isWanted) =>
        shownWidths(
          samples,
          [...spans].filter(([key]) => isWanted(key)),
          span,
        ),
    };
  } catch (error) {
    const record = { ...recordOf(page, range), layouts, error: failureText(error), notes };
    return { record, spans: new Map(), shownFor: () => [range.from, range.to] };
  }
}

function recordOf(page: string, { axis, from, to, device, every }: SweepRange): SweepRecord {
  return {
    page,
    axis,
    from,
    to,
    across: axis === 'width' ? device.height : device.width,
    layouts: 0,
    exhaustive: every,
    anew: false,
    whole: false,
    edges: [],
    notes: [],
    error: null,
  };
}

/** Sizes on both sides of where a defect begins or ends that show other defects when the page is loaded anew. */
async function differingAnew(
  { samples }: Searched,
  range: Span,
  anew: (size: number) => Promise<Sample>,
): Promise<number[]> {
  const inPlace = new Map(samples.map((sample) => [sample.width, sample]));
  const sizes = bothSides(spansByKey(samples).values(), range).slice(0, MOST_CONFIRMED);
  const again = await Promise.all(sizes.map(anew));
  return again
    .filter(({ width, seen }) => {
      const before = inPlace.get(width)?.seen;
      return before && (before.size !== seen.size || [...seen.keys()].some((key) => !before.has(key)));
    })
    .map(({ width }) => width);
}

/** The sizes at which the layout becomes another one, each the first of its stretch. */
function edgesOf(samples: readonly Sample[]): SweepRecord['edges'] {
  return samples.slice(1).flatMap((sample, i) => {
    const before = samples[i]!;
    if (before.form === sample.form) return [];
    const message =
      before.trace && sample.trace
        ? changesText(changesBetween(before.trace, sample.trace))
        : 'the layout becomes another one';
    return [{ width: sample.width, message }];
  });
}
