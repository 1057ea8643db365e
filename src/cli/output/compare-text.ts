import colors from 'picocolors';
import { count } from '../../core/geometry/format.js';
import { SEVERITIES } from '../../core/sightings/sighting.js';
import { pageName } from '../../report/page-name.js';
import {
  groupedDifferences,
  isDiffering,
  pixelPlaces,
  type GroupedDifference,
} from '../../report/view/differing.js';
import type { Comparison, PairRecord } from '../../run/compare/record.js';
import { TONE } from './finding-lines.js';
import { plainText, wrapped } from './wrapped.js';

const INDENT = '    ';
/** Of a page, so many differences are told; the rest is in the report. */
const MOST_TOLD = 20;
const MOST_FINDINGS = 12;
const MOST_NAMES = 6;

/** What differs between two runs, as a person reads it: page by page, structure first, then pixels; then what was found newly. */
export function compareText(comparison: Comparison, reportPath: string, columns: number): string {
  const { pages, pairs, findings, notes, a, b } = comparison;
  const blocks = [
    [...wrapped('', `${colors.bold(plainText(a.name))} and ${colors.bold(plainText(b.name))}`, columns)],
    ...pages.flatMap((page) => {
      const own = pairs.filter((pair) => pair.page === page.id);
      return own.length > 0 ? [pageLines(pageName(page), own, columns)] : [];
    }),
    findingLines(findings, columns),
    notes.flatMap((note) => wrapped('', `Note: ${plainText(note)}`, columns).map((line) => colors.dim(line))),
    [verdict(comparison), `Report: ${reportPath}`],
  ];
  return blocks
    .filter((lines) => lines.length > 0)
    .map((lines) => lines.join('\n'))
    .join('\n\n');
}

function pageLines(name: string, pairs: readonly PairRecord[], columns: number): string[] {
  const differing = pairs.filter(isDiffering);
  const profiles = [...new Set(pairs.map(pairName))];
  const head = `${colors.bold(plainText(name))}  `;
  const notes = [...new Set(pairs.flatMap((pair) => pair.notes))].flatMap((note) =>
    wrapped(INDENT, plainText(note), columns).map((line) => colors.dim(line)),
  );
  if (differing.length === 0) return [`${head}${colors.green('nothing differs')}`, ...notes];
  const unlike = Math.max(...differing.map((pair) => pair.unlike ?? 0));
  const grouped = groupedDifferences(differing);
  const left = grouped.length - MOST_TOLD;
  return [
    `${head}${colors.dim(`${differing.length} of ${count(pairs.length, 'render')} ${differing.length === 1 && pairs.length === 1 ? 'differs' : 'differ'}, unlike by ${unlike.toFixed(2)}${differing.length > 1 ? ' at most' : ''}`)}`,
    ...variantLines(differing, columns),
    ...grouped.slice(0, MOST_TOLD).flatMap((group) => differenceLines(group, profiles, columns)),
    ...(left > 0 ? [colors.dim(`  and ${left} more, in the report`)] : []),
    ...pixelLines(differing, columns),
    ...notes,
  ];
}

function pairName({ a, b }: PairRecord): string {
  return a === b ? a : `${a} and ${b}`;
}

function variantLines(pairs: readonly PairRecord[], columns: number): string[] {
  const variants = new Map<string, string[]>();
  for (const pair of pairs)
    if (pair.variant !== null)
      variants.set(pair.variant, [...(variants.get(pair.variant) ?? []), pairName(pair)]);
  return [...variants].flatMap(([variant, on]) =>
    wrapped('  ', `${colors.yellow(plainText(variant))} ${onText(on, pairs.length)}`, columns),
  );
}

function differenceLines(
  { difference, on }: GroupedDifference,
  profiles: readonly string[],
  columns: number,
): string[] {
  const { kind, message, follows } = difference;
  const names = on.map(pairName);
  return [
    ...wrapped(`  ${colors.cyan(kind)}  `, plainText(message), columns),
    ...follows.flatMap((text) => wrapped(INDENT, plainText(text), columns)),
    ...(profiles.length > 1
      ? wrapped(INDENT, onText(names, profiles.length), columns).map((line) => colors.dim(line))
      : []),
  ];
}

function onText(names: readonly string[], all: number): string {
  if (names.length === all) return all === 1 ? `on ${names[0]!}` : `on all ${all}`;
  const told = names.slice(0, MOST_NAMES).join(', ');
  const left = names.length - MOST_NAMES;
  return `on ${told}${left > 0 ? ` and ${left} more` : ''}`;
}

/** What looks otherwise and no difference of structure tells. */
function pixelLines(pairs: readonly PairRecord[], columns: number): string[] {
  return pixelPlaces(pairs).flatMap(({ selector, on, px }) =>
    wrapped(
      `  ${colors.cyan('looks')}  `,
      `${plainText(selector)} looks otherwise over ${px}  ${colors.dim(onText(on.map(pairName), pairs.length))}`,
      columns,
    ),
  );
}

function findingLines({ new: found, gone, same }: Comparison['findings'], columns: number): string[] {
  if (found.length + gone.length + same.length === 0) return [];
  const lines = found
    .filter(({ waived }) => !waived)
    .sort((x, y) => SEVERITIES.indexOf(x.severity) - SEVERITIES.indexOf(y.severity))
    .slice(0, MOST_FINDINGS)
    .flatMap(({ severity, rule, selector, message }) => [
      ...wrapped(`  ${TONE[severity](`new ${severity}`)}  `, `${rule}  ${plainText(selector)}`, columns),
      ...wrapped(INDENT, plainText(message), columns),
    ]);
  const left = found.length - MOST_FINDINGS;
  return [
    `Findings  ${found.length} new, ${gone.length} gone, ${same.length} in both`,
    ...lines,
    ...(left > 0 ? [colors.dim(`  and ${left} more new ones, in the report`)] : []),
  ];
}

function verdict({ pairs, findings, pages }: Comparison): string {
  const differing = pairs.filter(isDiffering);
  const compared = count(pairs.length, 'render');
  if (differing.length === 0 && findings.new.length + findings.gone.length === 0)
    return pairs.length === 0
      ? colors.yellow('There was nothing to compare.')
      : colors.green(`Nothing differs: ${compared} of ${count(pages.length, 'page')} compared.`);
  return `${differing.length} of ${compared} ${differing.length === 1 ? 'differs' : 'differ'}, on ${count(new Set(differing.map(({ page }) => page)).size, 'page')}`;
}
