import { count } from '../core/geometry/format.js';
import { SEVERITIES } from '../core/sightings/sighting.js';
import type { FindingRecord, Manifest } from '../run/manifest.js';
import { MARKS, marksOf, SIGNS } from './marks.js';
import { pageName, pageNames } from './page-name.js';
import { columnHeads, profileNames } from './profile-names.js';

/** A comment on a change is read at a glance: so many findings, pages and columns. */
const MOST_FINDINGS = 10;
const MOST_PAGES = 20;
const MOST_COLUMNS = 15;

/** Short enough for a comment on a change: counts, a small matrix, the worst findings. What comes from a page is never markup. */
export function markdownReport(manifest: Manifest): string {
  return [headOf(manifest), ...matrixOf(manifest), ...worstOf(manifest)].join('\n\n') + '\n';
}

function headOf({ summary, pages, profiles, interrupted }: Manifest): string {
  const parts = [
    count(summary.errors, 'error'),
    count(summary.warnings, 'warning'),
    count(summary.notices, 'notice'),
    ...(summary.failed > 0 ? [`${count(summary.failed, 'render')} failed`] : []),
    ...(summary.waived > 0 ? [`${summary.waived} waived`] : []),
  ];
  const where = `${count(pages.length, 'page')} on ${count(profiles.length, 'profile')}`;
  return `**${parts.join(', ')}** on ${where}${interrupted ? ', interrupted' : ''}`;
}

function matrixOf(manifest: Manifest): string[] {
  const profiles = manifest.profiles.slice(0, MOST_COLUMNS);
  const heads = columnHeads(manifest.profiles).slice(0, MOST_COLUMNS);
  const markOf = marksOf(manifest);
  const row = (cells: readonly string[]) => `| ${cells.join(' | ')} |`;
  const pages = manifest.pages.slice(0, MOST_PAGES);
  const lines = [
    row(['page', ...heads]),
    row(['---', ...heads.map(() => ':-:')]),
    ...pages.map((page) => {
      const signs = profiles
        .map(({ name }) => markOf(page.id, name))
        .map((mark) => (mark ? SIGNS[mark] : ' '));
      return row([escaped(pageName(page)), ...signs]);
    }),
  ];
  const left = [
    ...(manifest.pages.length > MOST_PAGES ? [count(manifest.pages.length - MOST_PAGES, 'more page')] : []),
    ...(manifest.profiles.length > MOST_COLUMNS
      ? [count(manifest.profiles.length - MOST_COLUMNS, 'more profile')]
      : []),
  ];
  const legend = MARKS.map((mark) => `${SIGNS[mark]} ${mark}`).join(', ');
  return [
    lines.join('\n'),
    `Columns are widths in px. ${legend}.${left.length > 0 ? ` And ${left.join(', ')}.` : ''}`,
  ];
}

function worstOf(manifest: Manifest): string[] {
  const names = pageNames(manifest);
  const open = manifest.findings.filter(({ waived }) => !waived);
  const ordered = SEVERITIES.flatMap((severity) => open.filter((finding) => finding.severity === severity));
  if (ordered.length === 0) return ['Nothing was found.'];
  const items = ordered.slice(0, MOST_FINDINGS).map((finding) => itemOf(finding, names));
  const left = ordered.length - items.length;
  return [items.join('\n'), ...(left > 0 ? [`And ${left} more, in the report.`] : [])];
}

function itemOf(finding: FindingRecord, names: ReadonlyMap<string, string>): string {
  const { severity, rule, selector, message, cause, page, seen } = finding;
  const source = cause?.declaration?.source;
  const why = cause ? ` ${withCode(cause.message)}${source ? ` (${escaped(source)})` : ''}` : '';
  const on = profileNames([...new Set(seen.map(({ profile }) => profile))].map((name) => ({ name })));
  return (
    `- **${severity}** ${rule} on ${escaped(names.get(page) ?? page)}: ${code(selector)}\n` +
    `  ${escaped(message)}${why}\n  On ${escaped(on)}.`
  );
}

/** CommonMark 0.31, section 2.4: every sign that could mean something is escaped; lines are one line, and nobody is called by name. */
function escaped(text: string): string {
  return text
    .replace(/\p{Cc}+/gu, ' ')
    .replace(/[\\`*_{}[\]<>()#+!|~&$]/g, '\\$&')
    .replaceAll('@', '@\u200b');
}

/** What stands between backticks is code. */
function withCode(text: string): string {
  return text
    .split('`')
    .map((part, i) => (i % 2 === 1 && part !== '' ? code(part) : escaped(part)))
    .join('');
}

/** CommonMark 0.31, section 6.1: a fence longer than what it holds. In a table's row a bar would end the cell. */
function code(text: string): string {
  const longest = Math.max(0, ...[...text.matchAll(/`+/g)].map(([run]) => run.length));
  const fence = '`'.repeat(longest + 1);
  const pad = text.startsWith('`') || text.endsWith('`') ? ' ' : '';
  return `${fence}${pad}${text.replace(/\p{Cc}+/gu, ' ')}${pad}${fence}`;
}
