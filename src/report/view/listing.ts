import { spansOf } from '../../core/geometry/span.js';
import { SEVERITIES } from '../../core/sightings/sighting.js';
import type { FindingRecord, Manifest } from '../../run/manifest.js';
import type { View } from './address.js';

export interface Listed {
  readonly finding: FindingRecord;
  /** The same in the list, on the panes and in every view: page by page, as the run lists them. */
  readonly number: number;
}

/** All findings with their numbers, the waived ones last. */
export function listed({ pages, findings }: Pick<Manifest, 'pages' | 'findings'>): Listed[] {
  const inOrder = pages.flatMap(({ id }) => findings.filter((finding) => finding.page === id));
  const [waived, open] = [
    inOrder.filter((finding) => finding.waived),
    inOrder.filter((finding) => !finding.waived),
  ];
  return [...open, ...waived].map((finding, i) => ({ finding, number: i + 1 }));
}

type Filter = Pick<
  View,
  'without' | 'rules' | 'families' | 'profiles' | 'waived' | 'search' | 'sort' | 'age'
>;

/**
 * What the reader asked to see, in their order.
 * @param page its id; null for every page
 * @param known ids of what an earlier run had already
 */
export function chosen(
  all: readonly Listed[],
  page: string | null,
  filter: Filter,
  known: ReadonlySet<string> = new Set(),
): Listed[] {
  const { without, rules, families, profiles, waived, search, sort, age } = filter;
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const found = all.filter(({ finding }) => {
    if (page !== null && !finding.seen.some((seen) => seen.page === page)) return false;
    if (finding.waived && !waived) return false;
    if (age !== 'all' && known.has(finding.id) !== (age === 'known')) return false;
    if (without.includes(finding.severity)) return false;
    if (rules.length > 0 && !rules.includes(finding.rule)) return false;
    if (families.length > 0 && !families.includes(finding.family)) return false;
    if (profiles.length > 0 && !finding.seen.some((seen) => profiles.includes(seen.profile))) return false;
    if (words.length === 0) return true;
    const text = textOf(finding);
    return words.every((word) => text.includes(word));
  });
  const place = ({ finding }: Listed) =>
    Math.min(...finding.seen.filter((seen) => page === null || seen.page === page).map(({ rect }) => rect.y));
  if (sort === 'place') return found.sort((a, b) => place(a) - place(b) || a.number - b.number);
  const rank = ({ finding }: Listed) => SEVERITIES.indexOf(finding.severity);
  return found.sort((a, b) => rank(a) - rank(b) || a.number - b.number);
}

/** Everything that is said of a finding, in small letters. */
function textOf(finding: FindingRecord): string {
  return [
    finding.id,
    finding.rule,
    finding.family,
    finding.severity,
    finding.selector,
    finding.message,
    finding.words,
    ...finding.related,
    ...finding.details,
    ...finding.pages,
    ...finding.seen.map(({ profile }) => profile),
    finding.cause?.message ?? '',
    finding.cause?.declaration?.source ?? '',
  ]
    .join('\n')
    .toLowerCase();
}

/** The widths of the profiles that show a finding, narrowest first, each once: `320, 360–390 px` where none between them is without. */
export function widthsText(finding: FindingRecord, profiles: Manifest['profiles']): string {
  const all = profiles.map(({ width }) => width);
  const seen = new Set(
    finding.seen.flatMap(({ profile }) => profiles.find(({ name }) => name === profile)?.width ?? []),
  );
  return sizesText(spansOf([...seen], all).map(({ min, max }) => [min, max] as const));
}

/** Spans of sizes, CSS px: `280–450, 768–1023 px`. */
export function sizesText(spans: readonly (readonly [from: number, to: number])[]): string {
  return `${spans.map((span) => spanText(span)).join(', ')} px`;
}

/** `280–450`; of one size, that. */
export function spanText([from, to]: readonly [from: number, to: number]): string {
  return from === to ? `${from}` : `${from}–${to}`;
}

/** What is put into the file of waivers to accept a finding, as YAML. */
export function waiverFor(finding: FindingRecord, until: string): string {
  return `- finding: ${finding.id}\n  reason: \n  who: \n  until: ${until}\n`;
}
