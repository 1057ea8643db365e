import colors from 'picocolors';
import { px } from '../../core/geometry/format.js';
import type { FindingRecord, Manifest } from '../../run/manifest.js';
import { labelsOf } from '../../report/range-labels.js';
import { pageNames } from '../../report/page-name.js';
import { profileNames, type NamedProfile } from '../../report/profile-names.js';
import { plainText, wrapped } from './wrapped.js';

export const TONE = { error: colors.red, warning: colors.yellow, notice: colors.cyan } as const;
const INDENT = '    ';
/** More px than these are told as a range, more names as a number. */
const MOST_PX = 4;
const MOST_NAMES = 12;
const MOST_DETAILS = 6;

/** One finding: what and where it is, how far it goes, why, and on which profiles. */
export function findingLines(
  finding: FindingRecord,
  manifest: Pick<Manifest, 'pages' | 'profiles' | 'sweep'>,
  columns: number,
  where: 'profiles' | 'spans' = 'profiles',
): string[] {
  const { profiles } = manifest;
  const names = pageNames(manifest);
  const { severity, rule, selector, words, related, message, details, cause, page, pages } = finding;
  const element =
    colors.bold(selector) + (words === '' || message.includes(words) ? '' : ` “${plainText(words)}”`);
  const more = related.length > 0 ? colors.dim(`  and ${related.length} like it`) : '';
  const source = cause?.declaration?.source;
  const why =
    cause && `${colors.dim('why')} ${plainText(cause.message)}${source ? `  ${colors.dim(source)}` : ''}`;
  const here = finding.seen.filter((entry) => entry.page === page);
  const others = pages.filter((other) => other !== page).map((id) => plainText(names.get(id) ?? id));
  return [
    ...wrapped(`  ${TONE[severity](severity)}  `, `${rule}  ${element}${more}`, columns),
    ...wrapped(INDENT, plainText(message), columns),
    ...detailLines(details, columns),
    ...(why ? wrapped(INDENT, why, columns) : []),
    ...(where === 'profiles'
      ? onLines(
          here.map(({ profile, by }) => ({ name: profile, px: by?.px })),
          profiles.length,
          columns,
        )
      : []),
    ...(finding.spans?.[page] ? spanLines(finding.spans[page], manifest, page, columns) : []),
    ...(finding.conditions ?? []).flatMap(({ condition, fails, right }) =>
      wrapped(
        `${INDENT}${colors.dim('in')} `,
        `@media ${condition}  ${colors.dim(`(fails at ${fails}, right at ${right})`)}`,
        columns,
      ),
    ),
    ...(others.length > 0 ? wrapped(`${INDENT}also on `, firstOf(others), columns) : []),
  ];
}

function spanLines(
  spans: readonly (readonly [number, number])[],
  manifest: Pick<Manifest, 'sweep'>,
  page: string,
  columns: number,
): string[] {
  const labels = labelsOf(manifest, page, spans);
  const where = labels.length > 0 ? colors.dim(` · ${plainText(labels.join(' · '))}`) : '';
  return wrapped(`${INDENT}at `, `${spansText(spans)}${where}`, columns);
}

function detailLines(details: readonly string[], columns: number): string[] {
  const shown = details
    .slice(0, MOST_DETAILS)
    .flatMap((text) => wrapped(`${INDENT}- `, plainText(text), columns));
  const left = details.length - MOST_DETAILS;
  return left > 0 ? [...shown, `${INDENT}- and ${left} more, in the report`] : shown;
}

/** On how many profiles, and on which: with their px where these are few, else with the least and the most. */
export function onLines(
  seen: readonly { readonly name: string; readonly px?: number | undefined }[],
  profiles: number,
  columns: number,
): string[] {
  const lengths = seen.flatMap((entry) => (entry.px === undefined ? [] : [Math.round(entry.px)]));
  const [least, most] = [Math.min(...lengths), Math.max(...lengths)];
  const isListed = seen.length <= MOST_PX && lengths.length > 0 && least !== most;
  const range =
    lengths.length === 0 || isListed ? '' : least === most ? ` (${px(most)})` : ` (${least} to ${px(most)})`;
  const named = seen.map((entry): NamedProfile => ({
    name: entry.name,
    aside: isListed ? px(entry.px ?? 0) : undefined,
  }));
  if (seen.length === profiles && !isListed)
    return wrapped(
      `${INDENT}on `,
      `${profiles > 1 ? `all ${profiles} profiles` : seen[0]!.name}${range}`,
      columns,
    );
  const all = profiles > 1 ? `${seen.length} of ${profiles} profiles${range}: ` : '';
  const names = profileNames(named.slice(0, MOST_NAMES));
  const left = named.length - MOST_NAMES;
  return wrapped(`${INDENT}on `, `${all}${names}${left > 0 ? ` and ${left} more` : ''}`, columns);
}

/** More of them are told by how many there are. */
const MOST_SPANS = 8;

/** Spans of sizes, CSS px: `280 to 450 and 768 to 1023 px`. */
export function spansText(spans: readonly (readonly [from: number, to: number])[]): string {
  const texts = spans
    .slice(0, MOST_SPANS)
    .map(([from, to]) => (from === to ? `${from}` : `${from} to ${to}`));
  const left = spans.length - MOST_SPANS;
  const all = left > 0 ? [...texts, `${left} more spans`] : texts;
  const last = all.pop()!;
  return `${all.length > 0 ? `${all.join(', ')} and ` : ''}${last}${left > 0 ? '' : ' px'}`;
}

const MOST_PAGES = 6;

function firstOf(names: readonly string[]): string {
  if (names.length <= MOST_PAGES) return names.join(', ');
  return `${names.slice(0, MOST_PAGES - 1).join(', ')} and ${names.length - MOST_PAGES + 1} more pages`;
}
