import { stripVTControlCharacters } from 'node:util';
import colors from 'picocolors';
import type { FindingRecord, Manifest } from '../../run/manifest.js';

const TONE = { error: colors.red, warning: colors.yellow, notice: colors.cyan } as const;

/** What a person reads after a check: page by page what is clean, what fails, by how much, and which element. */
export function summaryText(manifest: Manifest, reportPath: string): string {
  const lines: string[] = [];
  for (const page of manifest.pages) lines.push(...pageLines(manifest, page), '');
  lines.push(...waiverLines(manifest), verdict(manifest));
  lines.push(`Report: ${reportPath}`);
  return lines.join('\n');
}

function pageLines(manifest: Manifest, page: Manifest['pages'][number]): string[] {
  const findings = manifest.findings.filter((finding) => finding.page === page.id && !finding.waived);
  const renders = manifest.renders.filter((render) => render.page === page.id);
  const dirty = new Set(
    manifest.findings.flatMap(({ seen }) =>
      seen.filter((entry) => entry.page === page.id).map((entry) => entry.profile),
    ),
  );
  const state = page.state === undefined ? '' : `: ${page.state}`;
  const lines = [
    `${colors.bold(plainText(page.title || page.source) + plainText(state))}  ${colors.dim(plainText(page.source))}`,
  ];
  for (const finding of findings) lines.push(...findingLines(finding));

  const failures = new Map<string, string[]>();
  for (const render of renders) {
    if (render.status !== 'failed') continue;
    const message = render.error?.message ?? 'unknown reason';
    failures.set(message, [...(failures.get(message) ?? []), render.profile]);
  }
  for (const [message, profiles] of failures) {
    lines.push(`  ${colors.red('failed')}  ${message}`, `         on ${everyOr(profiles, renders.length)}`);
  }
  const clean = renders.filter((render) => render.status === 'ok' && !dirty.has(render.profile));
  if (clean.length > 0) {
    const names = clean.map((render) => render.profile);
    lines.push(`  ${colors.green('clean')}  ${everyOr(names, renders.length)}`);
  }
  const notes = new Map<string, string[]>();
  for (const render of renders) {
    for (const note of render.notes) notes.set(note, [...(notes.get(note) ?? []), render.profile]);
  }
  for (const [note, profiles] of notes) {
    lines.push(colors.dim(`  note   ${note} (${everyOr(profiles, renders.length)})`));
  }
  return lines;
}

/** Text of a page as a terminal may have it: without escape sequences and other control characters. */
function plainText(text: string): string {
  return stripVTControlCharacters(text)
    .replace(/\p{Cc}+/gu, ' ')
    .trimEnd();
}

/** Accepted findings are counted, and waivers that no longer serve are named. */
function waiverLines({ waivers }: Manifest): string[] {
  const stale = waivers.filter(({ state }) => state !== 'used');
  return stale.map(({ state, finding, rule, selector, until, who }) => {
    const what = finding ?? [rule, selector].filter(Boolean).join(' ');
    const why = state === 'expired' ? `expired on ${until}` : 'has nothing to accept any more';
    return colors.yellow(`Waiver for ${what} (${who}) ${why}.`);
  });
}

function findingLines(finding: FindingRecord): string[] {
  const here = finding.seen.filter(({ page }) => page === finding.page);
  const seen = here.map(({ profile, by }) => (by ? `${profile} (${Math.round(by.px)} px)` : profile));
  const others = finding.pages.filter((page) => page !== finding.page);
  const also = others.length > 0 ? [`         also on ${shortened(others)}`] : [];
  const more = finding.related.length > 0 ? colors.dim(`  and ${finding.related.length} like it`) : '';
  return [
    `  ${TONE[finding.severity](finding.severity)}  ${finding.rule}  ${colors.bold(finding.selector)}${more}`,
    `         ${plainText(finding.message)}`,
    ...causeLines(finding),
    `         on ${shortened(seen)}`,
    ...also,
  ];
}

function causeLines({ cause }: FindingRecord): string[] {
  if (!cause) return [];
  const source = cause.declaration?.source;
  return [`         ${colors.dim('why')} ${cause.message}${source ? colors.dim(`  ${source}`) : ''}`];
}

const MAX_NAMES = 8;

function shortened(names: readonly string[]): string {
  if (names.length <= MAX_NAMES) return names.join(', ');
  return `${names.slice(0, MAX_NAMES - 1).join(', ')} and ${names.length - MAX_NAMES + 1} more`;
}

function everyOr(profiles: readonly string[], all: number): string {
  return profiles.length === all && all > 1 ? `all ${all} profiles` : shortened(profiles);
}

function verdict({ summary, interrupted, durationMs }: Manifest): string {
  const count = (n: number, word: string) => `${n} ${word}${n === 1 ? '' : 's'}`;
  const parts = [
    count(summary.renders, 'render'),
    ...(summary.failed > 0 ? [colors.red(`${summary.failed} failed`)] : []),
    summary.errors > 0 ? colors.red(count(summary.errors, 'error')) : 'no errors',
    ...(summary.warnings > 0 ? [colors.yellow(count(summary.warnings, 'warning'))] : []),
    ...(summary.notices > 0 ? [count(summary.notices, 'notice')] : []),
    ...(summary.waived > 0 ? [`${summary.waived} waived`] : []),
  ];
  const seconds = (durationMs / 1000).toFixed(1);
  return `${interrupted ? 'Interrupted. ' : ''}${parts.join(', ')} in ${seconds} s`;
}
