import colors from 'picocolors';
import { count } from '../../core/geometry/format.js';
import { RULES } from '../../core/rules/index.js';
import type { FindingRecord, Manifest } from '../../run/manifest.js';
import { pageName } from '../../report/page-name.js';
import { findingLines, onLines } from './finding-lines.js';
import { layoutLines } from './layout-lines.js';
import { matrixLines } from './matrix.js';
import { sweepLines } from './sweep-lines.js';
import { onlyNew } from '../../run/against.js';
import { middleCut, plainText, wrapped } from './wrapped.js';

export interface SummaryOptions {
  readonly columns: number;
  /** Whether notices are listed one by one; else they are counted. */
  readonly notices: boolean;
  /** Whether the run was made for a search over sizes: then its profiles are sizes that show something and nothing more. */
  readonly onlySizes?: boolean;
}

/**
 * What a person reads after a check: where it fails at a glance, then what fails, why and where, then the rest in few lines.
 * @param reportPath as the user would write it
 */
export function summaryText(run: Manifest, reportPath: string, options: SummaryOptions): string {
  const manifest = onlyNew(run);
  const { columns } = options;
  const blocks = [
    ...(options.onlySizes === true ? [] : [matrixLines(manifest, columns)]),
    ...manifest.pages.flatMap((page) => [
      ...(manifest.sweep ?? [])
        .filter((sweep) => sweep.page === page.id)
        .map((sweep) => sweepLines(sweep, manifest, columns)),
      pageLines(manifest, page, options),
    ]),
    options.onlySizes === true ? [] : layoutLines(manifest, columns),
    options.notices ? [] : noticeLines(manifest, columns),
    noteLines(manifest, columns),
    waiverLines(manifest, columns),
    [...againstLines(run), verdict(manifest), `Report: ${reportPath}`],
  ];
  return blocks
    .filter((lines) => lines.length > 0)
    .map((lines) => lines.join('\n'))
    .join('\n\n');
}

/** A page's findings and failures; nothing where it has none, which the matrix tells. */
function pageLines(
  manifest: Manifest,
  page: Manifest['pages'][number],
  { columns, notices, onlySizes }: SummaryOptions,
): string[] {
  const findings = manifest.findings.filter(
    (finding) => finding.page === page.id && !finding.waived && (notices || finding.severity !== 'notice'),
  );
  const renders = manifest.renders.filter((render) => render.page === page.id);
  const failures = new Map<string, string[]>();
  for (const { status, error, profile } of renders) {
    if (status !== 'failed') continue;
    const message = error?.message ?? 'unknown reason';
    failures.set(message, [...(failures.get(message) ?? []), profile]);
  }
  if (findings.length === 0 && failures.size === 0) return [];
  const name = plainText(pageName(page));
  const title = middleCut(plainText(page.title), Math.max(0, columns - name.length - 2));
  const lines = [`${colors.bold(middleCut(name, columns))}  ${colors.dim(title)}`.trimEnd()];
  const profiles = manifest.profiles.length;
  for (const finding of findings)
    lines.push(...findingLines(finding, manifest, columns, onlySizes === true ? 'spans' : 'profiles'));
  for (const [message, on] of failures) {
    lines.push(
      ...wrapped(`  ${colors.red('failed')}  `, plainText(message), columns),
      ...onLines(
        on.map((profile) => ({ name: profile })),
        profiles,
        columns,
      ),
    );
  }
  return lines;
}

/** Of each rule, how many notices there are. */
function noticeLines({ findings }: Manifest, columns: number): string[] {
  const byRule = new Map<string, FindingRecord[]>();
  for (const finding of findings) {
    if (finding.severity === 'notice' && !finding.waived)
      byRule.set(finding.rule, [...(byRule.get(finding.rule) ?? []), finding]);
  }
  if (byRule.size === 0) return [];
  const width = Math.max(...[...byRule.keys()].map((rule) => rule.length));
  const lines = [...byRule].map(([rule, all]) => {
    const pages = new Set(all.flatMap((finding) => finding.pages)).size;
    const summary = RULES.find(({ meta }) => meta.name === rule)?.meta.summary;
    const where = pages > 1 ? ` on ${pages} pages` : '';
    const text = `${all.length}${where}${summary === undefined ? '' : `: ${summary}`}`;
    return wrapped(`  ${colors.cyan(rule)}${' '.repeat(width - rule.length)}  `, text, columns);
  });
  return [`Notices ${colors.dim('(--notices lists them)')}`, ...lines.flat()];
}

const MOST_NOTES = 6;

/** What is to be known about how it was rendered, each once, with how many renders it is true of. */
function noteLines({ renders, profiles, pages }: Manifest, columns: number): string[] {
  const notes = new Map<string, { profiles: Set<string>; renders: number }>();
  for (const { notes: said, profile } of renders) {
    for (const note of said) {
      const at = notes.get(note) ?? { profiles: new Set<string>(), renders: 0 };
      at.profiles.add(profile);
      at.renders++;
      notes.set(note, at);
    }
  }
  if (notes.size === 0) return [];
  const lines = [...notes].map(([note, at]) => {
    const isEverywhere = at.renders === renders.length;
    const on = [...at.profiles];
    const where =
      on.length === profiles.length
        ? `all ${profiles.length} profiles`
        : on.length > 3
          ? `${on.length} profiles`
          : on.join(', ');
    const some = pages.length > 1 && !isEverywhere ? `${count(at.renders, 'render')}: ` : '';
    return wrapped('  ', plainText(`${note} (${some}${where})`), columns);
  });
  const left = lines.length - MOST_NOTES;
  const more = left > 0 ? [`  and ${left} more, in the report`] : [];
  return ['Notes', ...lines.slice(0, MOST_NOTES).flat(), ...more].map((line) => colors.dim(line));
}

/** Waivers that no longer serve. */
function waiverLines({ waivers }: Manifest, columns: number): string[] {
  const stale = waivers.filter(({ state }) => state !== 'used');
  return stale.flatMap(({ state, finding, rule, selector, until, who }) => {
    const what = finding ?? [rule, selector].filter(Boolean).join(' ');
    const why = state === 'expired' ? `expired on ${until}` : 'has nothing to accept any more';
    return wrapped('', `Waiver for ${what} (${who}) ${why}.`, columns).map((line) => colors.yellow(line));
  });
}

/** What was known before is counted, not listed. */
function againstLines({ against }: Manifest): string[] {
  if (!against) return [];
  const { name, known, gone } = against;
  return [
    colors.dim(
      `Against ${plainText(name)}: ${count(known.length, 'known finding')} not listed, ${gone} gone.`,
    ),
  ];
}

function verdict({ summary, interrupted, durationMs, against }: Manifest): string {
  const fresh = against ? 'new ' : '';
  const parts = [
    count(summary.renders, 'render'),
    ...(summary.failed > 0 ? [colors.red(`${summary.failed} failed`)] : []),
    summary.errors > 0 ? colors.red(count(summary.errors, `${fresh}error`)) : `no ${fresh}errors`,
    ...(summary.warnings > 0 ? [colors.yellow(count(summary.warnings, `${fresh}warning`))] : []),
    ...(summary.notices > 0 ? [count(summary.notices, `${fresh}notice`)] : []),
    ...(summary.waived > 0 ? [`${summary.waived} waived`] : []),
  ];
  const seconds = (durationMs / 1000).toFixed(1);
  return `${interrupted ? 'Interrupted. ' : ''}${parts.join(', ')} in ${seconds} s`;
}
