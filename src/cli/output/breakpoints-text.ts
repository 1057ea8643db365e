import colors from 'picocolors';
import { count } from '../../core/geometry/format.js';
import { pageName } from '../../report/page-name.js';
import type { Manifest } from '../../run/manifest.js';
import { spansText } from './finding-lines.js';
import { rulerOf } from './ruler.js';
import { plainText, wrapped } from './wrapped.js';

type Sweep = NonNullable<Manifest['sweep']>[number];
type Query = NonNullable<Sweep['queries']>[number];

/** Places of a query that are named. */
const MOST_SOURCES = 3;
/** Containers of a query that are told one by one. */
const MOST_CONTAINERS = 4;
/** More bars than these make no picture. */
const MOST_BARS = 16;

/** The media queries of every page: where they hold on a ruler, then each with its places, what it changes and what is wrong with it. */
export function breakpointsText(manifest: Manifest, reportPath: string, columns: number): string {
  const blocks = (manifest.sweep ?? []).flatMap((sweep) => [pageLines(sweep, manifest, columns)]);
  const problems = (manifest.sweep ?? []).flatMap(({ queries = [], problems: own = [] }) => [
    ...own,
    ...queries.flatMap((query) => query.problems),
  ]).length;
  const seconds = (manifest.durationMs / 1000).toFixed(1);
  const verdict = problems > 0 ? colors.yellow(count(problems, 'problem')) : 'no problems';
  return [
    ...blocks.map((lines) => lines.join('\n')),
    `${verdict} in ${seconds} s\nReport: ${reportPath}`,
  ].join('\n\n');
}

function pageLines(sweep: Sweep, manifest: Manifest, columns: number): string[] {
  const { from, to, queries = [], problems = [], error } = sweep;
  const page = manifest.pages.find(({ id }) => id === sweep.page);
  const head = `${colors.bold(plainText(page ? pageName(page) : sweep.page))}  ${colors.dim(count(queries.length, 'query', 'queries'))}`;
  if (error !== null)
    return [head, ...wrapped(`  ${colors.red('not searched')}  `, plainText(error), columns)];
  if (queries.length === 0) return [head, '  It asks for no size.'];
  const ruler = rulerOf(sweep, columns);
  const drawn = queries.filter(({ spans }) => spans !== null && spans.length > 0);
  return [
    head,
    '',
    ruler.scale([from, ...new Set(drawn.flatMap(({ spans }) => spans!.flat())), to]),
    ...drawn.slice(0, MOST_BARS).map(({ text, spans }) => ruler.bar(plainText(text), spans!, colors.cyan)),
    '',
    ...queries.flatMap((query) => queryLines(query, columns)),
    ...problems.flatMap((problem) =>
      wrapped('  ', plainText(problem), columns).map((line) => colors.yellow(line)),
    ),
  ];
}

function queryLines(
  { text, kind, spans, containers = [], sources, changes, problems }: Query,
  columns: number,
): string[] {
  const places = placesText(sources);
  const held = spans === null ? '' : spans.length === 0 ? 'nowhere' : spansText(spans);
  return [
    ...wrapped(
      `  ${kind === 'media' ? '' : `${colors.dim(kind)} `}`,
      `${colors.bold(plainText(text))}${held === '' ? '' : `  ${held}`}  ${colors.dim(plainText(places))}`,
      columns,
    ),
    ...(containers.length > 1
      ? containers
          .slice(0, MOST_CONTAINERS)
          .flatMap(({ selector, spans: own }) =>
            wrapped(
              '    ',
              `in ${plainText(selector)}  ${own.length === 0 ? 'nowhere' : spansText(own)}`,
              columns,
            ),
          )
      : []),
    ...(containers.length > MOST_CONTAINERS
      ? [`    and in ${containers.length - MOST_CONTAINERS} more`]
      : []),
    ...(changes === '' ? [] : wrapped('    ', plainText(changes), columns)),
    ...problems.flatMap((problem) =>
      wrapped('    ', plainText(problem), columns).map((line) => colors.yellow(line)),
    ),
  ];
}

/** Lines of one file after the first are told without its name: `css/home.css:14, :52 and 3 more`. */
function placesText(sources: readonly string[]): string {
  const fileOf = (source: string | undefined) => source?.replace(/:\d+$/, '');
  const named = sources.slice(0, MOST_SOURCES).map((source, at) => {
    const file = fileOf(source)!;
    const isSame = at > 0 && file !== source && file === fileOf(sources[at - 1]);
    return isSame ? source.slice(file.length) : source;
  });
  const left = sources.length - MOST_SOURCES;
  return `${named.join(', ')}${left > 0 ? ` and ${left} more` : ''}`;
}
