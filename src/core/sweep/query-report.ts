import { containerQueryOf } from '../css/container-query.js';
import type { FoundQuery } from '../css/found-query.js';
import { spansWhereHeld } from '../css/media-spans.js';
import { conditionOf, type Bound, type Condition, type MediaEnvironment } from '../css/media-query.js';
import { tidy } from '../geometry/format.js';
import { beginsOf, united, type Span } from '../geometry/span.js';
import { containerSpans, type ContainerSize } from './container-spans.js';
import { conditionsOfSizes } from './begins.js';

/** A condition of a page, wherever it stands, with what comes of it in a range of widths. */
export interface QueryReport {
  readonly text: string;
  readonly kind: FoundQuery['kind'];
  /** The widths of the viewport at which it holds, CSS px; null where that can't be told. */
  readonly spans: readonly Span[] | null;
  /** Of a container query, each container with the widths of the viewport at which it holds in it. */
  readonly containers: readonly { readonly selector: string; readonly spans: readonly Span[] }[];
  /** The places that it stands in: `file:line`, or the element that names it. */
  readonly sources: readonly string[];
  /** What a person sees change where it begins to hold or not to, by the first width of the new stretch. */
  readonly changes: readonly { readonly width: number; readonly message: string }[];
  /** What is wrong with it. */
  readonly problems: readonly string[];
}

export interface QueriesOfPage {
  readonly queries: readonly FoundQuery[];
  readonly environment: MediaEnvironment;
  readonly range: Span;
  /** What changes at a width at which some query begins to hold or not to, in words; empty where nothing does. */
  readonly changesAt: ReadonlyMap<number, string>;
  /** The containers that a container query asks, and how large they are at the widths that were looked at. */
  readonly containersOf: (
    query: FoundQuery,
  ) => readonly { readonly selector: string; readonly sizes: readonly ContainerSize[] }[];
  /** Where the layout becomes another one, and what a person sees of it. */
  readonly edges: readonly { readonly width: number; readonly message: string }[];
  /** Other devices that there are, as media queries see them, and how wide they are. */
  readonly devices: readonly { readonly width: number; readonly environment: MediaEnvironment }[];
}

/** Asks about something else than the size of the window. */
const OTHER_MEDIA = /\b(print|speech|prefers-|forced-colors|inverted-colors|scripting|update|display-mode)\b/;

/** Every condition of a page once, with the places that it stands in, in the order of the widths at which it begins. */
export function reportQueries(page: QueriesOfPage): QueryReport[] {
  const groups = new Map<string, FoundQuery[]>();
  for (const query of page.queries) {
    const key = `${query.kind === 'container' ? 'container' : query.kind === 'sizes' ? 'sizes' : 'media'}\n${query.text.toLowerCase()}`;
    groups.set(key, [...(groups.get(key) ?? []), query]);
  }
  const bounds = boundsOf(page);
  return [...groups.values()]
    .map((group) => reportOf(group, page, bounds))
    .sort((a, b) => firstBegin(a, page.range) - firstBegin(b, page.range));
}

function reportOf(
  group: readonly FoundQuery[],
  page: QueriesOfPage,
  all: readonly PlacedBound[],
): QueryReport {
  const [{ text, kind }] = group as [FoundQuery, ...FoundQuery[]];
  const sources = [...new Set(group.flatMap(({ source }) => (source === null ? [] : [source])))].sort(
    (a, b) => a.localeCompare(b, 'en', { numeric: true }),
  );
  const base = { text, kind, sources, containers: [] };
  if (kind === 'container') return { ...base, ...ofContainers(group, page) };
  const conditions = (kind === 'sizes' ? conditionsOfSizes(text) : [text]).map(conditionOf);
  if (conditions.includes(null))
    return { ...base, spans: null, changes: [], problems: ['it can not be read, so browsers pass over it'] };
  const spans = conditions.flatMap((condition) => spansWhereHeld(condition!, page.environment, page.range));
  const begins = [...new Set(beginsOf(spans, page.range))];
  const changes = begins.flatMap((width) => {
    const message = page.changesAt.get(width) ?? '';
    return message === '' ? [] : [{ width, message }];
  });
  return {
    ...base,
    spans,
    changes,
    problems: [
      ...uselessness(text, conditions as Condition[], spans, begins, changes.length, page),
      ...neighbours(text, all),
    ],
  };
}

/** A container query holds where it holds in one of its containers. What changes there is what the layout changes there. */
function ofContainers(
  group: readonly FoundQuery[],
  { containersOf, edges, range }: QueriesOfPage,
): Pick<QueryReport, 'spans' | 'containers' | 'changes' | 'problems'> {
  const { holds } = containerQueryOf(group[0]!.text);
  if (!holds) return { spans: null, containers: [], changes: [], problems: [] };
  const named = new Map(group.flatMap(containersOf).map((container) => [container.selector, container]));
  const containers = [...named.values()].map(({ selector, sizes }) => ({
    selector,
    spans: containerSpans(holds, sizes),
  }));
  const begins = new Set(containers.flatMap(({ spans }) => beginsOf(spans, range)));
  return {
    spans: united(containers.flatMap(({ spans }) => spans)),
    containers,
    changes: edges.filter(({ width }) => begins.has(width)),
    problems: containers.length === 0 ? ['no element of the page is in a container that it asks'] : [],
  };
}

/** A query that no window and no device that there is answers, or whose edges nobody sees. */
function uselessness(
  text: string,
  conditions: readonly Condition[],
  spans: readonly Span[],
  begins: readonly number[],
  seen: number,
  { range, devices }: QueriesOfPage,
): string[] {
  if (OTHER_MEDIA.test(text)) return [];
  if (begins.length > 0 && seen === 0) return [`nothing changes at ${begins.join(' or ')} px`];
  if (spans.length > 0) return [];
  const isAnswered = devices.some(({ width, environment }) =>
    conditions.some((condition) => condition.holds(width, environment) !== false),
  );
  return isAnswered
    ? []
    : [
        `it holds at no width from ${range.min} to ${range.max} px, and no profile of the catalogue is what it asks for`,
      ];
}

interface PlacedBound extends Bound {
  readonly text: string;
}

function boundsOf({ queries, environment }: QueriesOfPage): PlacedBound[] {
  const texts = new Set(
    queries.filter(({ kind }) => kind !== 'container' && kind !== 'sizes').map(({ text }) => text),
  );
  return [...texts].flatMap(
    (text) =>
      conditionOf(text)
        ?.bounds(environment)
        .map((bound) => ({ ...bound, text })) ?? [],
  );
}

/** Ends and beginnings that are so near are meant to meet, CSS px. */
const NEAR = 2;
/** An end like 767.98 px leaves nothing that a screen shows. */
const FINE = 0.05;

/** Where a range ends a px or a part of one before the next begins, or after it. */
function neighbours(text: string, all: readonly PlacedBound[]): string[] {
  const problems = new Set<string>();
  for (const end of all) {
    if (end.text !== text || end.side !== 'max') continue;
    for (const begin of all) {
      const gap = begin.width - end.width;
      if (begin.side !== 'min' || begin.text === text || Math.abs(gap) > NEAR) continue;
      const other = `“${begin.text}”`;
      if (gap <= 0 && (gap < 0 || (begin.isIncluded && end.isIncluded)))
        problems.add(
          gap === 0
            ? `at ${tidy(end.width)} px it holds together with ${other}`
            : `from ${tidy(begin.width)} to ${tidy(end.width)} px it holds together with ${other}`,
        );
      else if (gap > FINE)
        problems.add(`between ${tidy(end.width)} and ${tidy(begin.width)} px neither it nor ${other} holds`);
    }
  }
  return [...problems];
}

function firstBegin({ spans }: QueryReport, range: Span): number {
  return beginsOf(spans ?? [], range)[0] ?? Infinity;
}

/** Layouts that live for fewer px are seen by nobody, or come of two edges that were meant to be one. */
const LEAST_STRETCH = 16;

/** Layouts of a page that live for a few px. */
export function shortStretches(stretches: readonly Span[]): string[] {
  return stretches
    .slice(1, -1)
    .filter(({ min, max }) => max - min + 1 < LEAST_STRETCH)
    .map(
      ({ min, max }) =>
        `the layout ${min === max ? `at ${min}` : `from ${min} to ${max}`} px lives for ${max - min + 1} px`,
    );
}

/**
 * Of widths at which something breaks, how far the nearest edge of a query is, in words; null where one contains it.
 * @param begins widths at which some query begins to hold or not to
 */
export function unguarded({ min, max }: Span, begins: readonly number[]): string | null {
  if (begins.includes(min) || begins.includes(max + 1)) return null;
  const [nearest] = [...begins].sort((a, b) => distance(a, min, max) - distance(b, min, max));
  return nearest === undefined ? 'no query is about a width' : `the nearest query begins at ${nearest} px`;
}

function distance(at: number, min: number, max: number): number {
  return Math.min(Math.abs(at - min), Math.abs(at - max));
}
