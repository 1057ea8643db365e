import type { Span } from '../../core/geometry/span.js';
import { containerQueryOf } from '../../core/css/container-query.js';
import type { FoundQuery } from '../../core/css/found-query.js';
import { openTurns, type ContainerSize } from '../../core/sweep/container-spans.js';
import { knownBegins } from '../../core/sweep/begins.js';
import { changesBetween, changesText } from '../../core/sweep/changes.js';
import { environmentOf } from '../../core/sweep/environment.js';
import { isAnyMoving, nothingMoving, unfollow } from '../../core/sweep/moving.js';
import type { Sample } from '../../core/sweep/sample.js';
import { conditionFor, queryStyleOf } from '../../core/sweep/containing-condition.js';
import { reportQueries, shortStretches, type QueryReport } from '../../core/sweep/query-report.js';
import { rangesBetween } from '../../core/sweep/ranges.js';
import { restyled } from '../../core/sweep/restyled.js';
import { search, type SearchOptions } from '../../core/sweep/search.js';
import { shownWidths } from '../../core/sweep/shown-widths.js';
import { failingIn, spansByKey, stretchesOf, type FailingSpans } from '../../core/sweep/spans.js';
import type { Manifest } from '../manifest.js';
import { failureText, type Copies, type NamedContainer, type PageQueries } from './copies.js';
import { differingAnew } from './differing-anew.js';
import type { SweepRange } from './plan.js';
import { movesByItself, steadinessOf, type Steadiness } from './steadiness.js';

/** So many layouts a page at most, unless every size is asked for. */
const MOST_LAYOUTS = 500;
/** And so many where the page is loaded for each. */
const MOST_ANEW = 150;

export type SweepRecord = NonNullable<Manifest['sweep']>[number];
type QueryRecord = NonNullable<SweepRecord['queries']>[number];

/** What the search over the sizes of one page came to. */
export interface PageSweep {
  readonly record: SweepRecord;
  /** The media condition, as the page writes them, that holds at exactly the widths of a span; null where its ends are not known to the px. */
  readonly conditionFor: (span: Span) => string | null;
  /** By the key of the defect. */
  readonly spans: ReadonlyMap<string, readonly Span[]>;
  /** Errors and warnings with the sizes that show them, the gravest first. */
  readonly failing: () => FailingSpans[];
  /** The sizes that show some of the defects, rising; of none, both ends of the range. */
  readonly shownFor: (isWanted: (key: string) => boolean) => readonly number[];
}

/** What is done with a page beside looking at its sizes. */
export interface SearchWork {
  /** Whether it is loaded anew to confirm what was found. */
  readonly confirms: boolean;
  readonly onLooked: (layouts: number) => void;
  /** Pictures it at the sizes at which its layout changes, and between: while it is confirmed, since loads leave cores idle. */
  readonly picture?: ((edges: readonly number[], isAnew: boolean) => Promise<Pictured>) | undefined;
}

/** Small pictures of a page on the way, or why there are none. */
export type Pictured = Pick<SweepRecord, 'shots'> | { readonly failure: string };

/**
 * Searches a page over all sizes of a range: in place, by giving the window one size after another; where loading anew shows something else,
 * by loading it anew for each. What the page or its browser does wrong is in the record.
 */
export async function searchPage(
  page: string,
  copies: Copies,
  range: SweepRange,
  { confirms, onLooked, picture }: SearchWork,
): Promise<PageSweep> {
  const span: Span = { min: range.from, max: range.to };
  const notes: string[] = [];
  let layouts = 0;
  /** What moves by itself, once it is known. */
  let moving = nothingMoving();
  const counted = (look: (size: number) => Promise<Sample>) => (size: number) => {
    layouts++;
    onLooked(layouts);
    return look(size);
  };
  const followed = (look: (size: number) => Promise<Sample>) => async (size: number) => {
    const sample = await look(size);
    unfollow(sample, moving);
    return sample;
  };
  const options = {
    from: range.from,
    to: range.to,
    every: range.every,
    most: range.every ? Infinity : MOST_LAYOUTS,
  };
  try {
    const { queries, containersOf } = await copies.queries();
    const environment = environmentOf(range.device);
    const beginsOf = (those: readonly FoundQuery[]) =>
      range.axis === 'width' ? knownBegins(those, environment, span) : [];
    const begins = beginsOf(queries);
    const askedByScripts = beginsOf(queries.filter(({ kind }) => kind === 'script'));
    const changesAt = new Map<number, string>();
    const onBegin = (before: Sample, after: Sample) =>
      changesAt.set(after.width, changeTexts(before, after).join('; '));
    const whole = counted((size) => copies.inPlace(size));
    const inPlace = followed(whole);
    const anew = followed(counted((size) => copies.anew(size)));
    let steadiness: Steadiness = 'same';
    const searchBy = async (look: (size: number) => Promise<Sample>, own: Partial<SearchOptions>) => {
      const { samples, ...how } = await search(look, { ...options, begins, onBegin, ...own });
      const found = await withTurns(samples, queries, containersOf, look);
      return { ...how, samples: found, edges: edgesOf(found) };
    };
    let found = await searchBy(inPlace, {
      isSteady: async (samples) => {
        steadiness = await steadinessOf(samples, inPlace, moving);
        for (const sample of samples) unfollow(sample, moving);
        return steadiness !== 'way';
      },
    });
    const way = steadiness as Steadiness;
    const again = followed(counted((size) => copies.again(size)));
    const pictured = (isAnew: boolean) =>
      picture?.(
        found.edges.map(({ width }) => width),
        isAnew,
      );
    const [differing, taken] =
      way === 'way'
        ? [[], undefined]
        : await Promise.all([
            confirms ? differingAnew(found.samples, askedByScripts, span, again, anew) : [],
            pictured(false),
          ]);
    let shots = taken;
    const isAnew = way === 'way' || differing.length > 0;
    if (isAnew) {
      notes.push(
        way === 'way'
          ? `its layout hangs on the way on which its window came to a ${range.axis}: the page was loaded anew for each ${range.axis}`
          : `loaded anew at ${differing.join(', ')} px it shows something else than when its window is resized to that: the page was loaded anew for each ${range.axis}`,
      );
      // Where a page is loaded anew, no way leads to a size.
      if (way === 'way') moving = nothingMoving();
      found = await searchBy(anew, { most: Math.min(options.most, MOST_ANEW) });
      shots = await pictured(true);
    }
    const mayMove = isAnyMoving(moving) || !found.isWhole;
    const isUnsteady = way === 'time' || (mayMove && (await movesByItself(range.to, whole)));
    if (isUnsteady)
      notes.push('it changes by itself while it is looked at: what is said of it holds for one moment');
    else if (isAnyMoving(moving) && !isAnew)
      notes.push(
        `parts of it stand elsewhere when its window comes back to a ${range.axis}: what comes and goes with them between two ${range.axis}s that were looked at may be missed`,
      );
    if (!isUnsteady && !found.isWhole)
      notes.push(
        `it changes at so many ${range.axis}s that after ${layouts} layouts not all were looked for: ${found.isExact ? `edges and spans are exact, but what comes and goes between two ${range.axis}s that were looked at may be missed` : `edges and spans are exact to the next ${range.axis} that was looked at`}`,
      );
    if (shots && 'failure' in shots) notes.push(`it could not be pictured on the way: ${shots.failure}`);
    const { samples, edges } = found;
    const looked = new Set(samples.map(({ width }) => width));
    const spans = spansByKey(samples);
    const ranges = range.ranges.length > 0 ? range.ranges : rangesBetween(begins, span);
    return {
      record: {
        ...recordOf(page, range),
        layouts,
        anew: isAnew,
        whole: found.isWhole,
        edges,
        notes,
        ...(shots && !('failure' in shots) && shots),
        ...(range.axis === 'width' && {
          queries: reportQueries({
            queries,
            environment,
            range: span,
            changesAt,
            devices: range.known,
            containersOf: (query) =>
              containersOf(query).map((container) => ({
                selector: container.selector,
                sizes: sizesOf(container, samples),
              })),
            edges,
          }).map(queryRecord),
          ranges: ranges.map(({ label, span: { min, max } }) => ({
            label,
            span: [min, max] as [number, number],
          })),
          problems: shortStretches(stretchesOf(samples)),
        }),
      },
      conditionFor: (at) =>
        endsAreKnown(at, looked, span)
          ? conditionFor(at, span, queryStyleOf(queries), environment.fontSize)
          : null,
      spans,
      shownFor: (isWanted) => shownWidths(samples, isWanted, span),
      failing: () => failingIn(samples),
    };
  } catch (error) {
    const record = { ...recordOf(page, range), layouts, error: failureText(error), notes };
    return {
      record,
      spans: new Map(),
      shownFor: () => [range.from, range.to],
      conditionFor: () => null,
      failing: () => [],
    };
  }
}

/** Whether the sizes on both sides of where a span begins and ends were looked at. */
function endsAreKnown({ min, max }: Span, looked: ReadonlySet<number>, range: Span): boolean {
  return (min === range.min || looked.has(min - 1)) && (max === range.max || looked.has(max + 1));
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

/** Rounds of looks at where container queries turn: each goes by what the one before found. */
const TURN_ROUNDS = 3;

/** The samples and those that it takes to know to the px where each container query turns in each of its containers. */
async function withTurns(
  samples: readonly Sample[],
  queries: readonly FoundQuery[],
  containersOf: PageQueries['containersOf'],
  look: (size: number) => Promise<Sample>,
): Promise<readonly Sample[]> {
  const asked = queries.flatMap((query) => {
    const { holds } = query.kind === 'container' ? containerQueryOf(query.text) : { holds: null };
    return holds ? containersOf(query).map((container) => ({ holds, container })) : [];
  });
  let known = samples;
  for (let round = 0; round < TURN_ROUNDS; round++) {
    const wanted = new Set(
      asked.flatMap(({ holds, container }) => openTurns(holds, sizesOf(container, known))),
    );
    if (wanted.size === 0) break;
    const found = await Promise.all([...wanted].map(look));
    known = [...known, ...found].sort((a, b) => a.width - b.width);
  }
  return known;
}

function sizesOf({ number }: NamedContainer, samples: readonly Sample[]): ContainerSize[] {
  return samples.map(({ width, containers }) => ({ width, size: containers.get(number) ?? null }));
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

/** What a person sees change from one width to the next, at which a media query begins to hold or not to. */
function changeTexts(before: Sample, after: Sample): string[] {
  if (!before.trace || !after.trace) return [];
  const changes = before.form === after.form ? [] : [changesText(changesBetween(before.trace, after.trace))];
  return [...changes, ...restyled(before.trace, after.trace)];
}

function queryRecord({
  text,
  kind,
  spans,
  containers,
  sources,
  changes,
  problems,
}: QueryReport): QueryRecord {
  return {
    text,
    kind,
    spans: spans && pairsOf(spans),
    ...(containers.length > 0 && {
      containers: containers.map(({ selector, spans: own }) => ({ selector, spans: pairsOf(own) })),
    }),
    source: sources[0] ?? null,
    sources: [...sources],
    changes: changes.map(({ width, message }) => `from ${width}: ${message}`).join('. '),
    problems: [...problems],
  };
}

function pairsOf(spans: readonly Span[]): [number, number][] {
  return spans.map(({ min, max }) => [min, max]);
}
