import colors from 'picocolors';
import stringWidth from 'string-width';
import type { Manifest } from '../../run/manifest.js';
import { sourceOf } from './finding-lines.js';
import { columnHeads } from './profile-names.js';
import { middleCut, wrapped } from './wrapped.js';

type Mark = 'failed' | 'error' | 'warning' | 'notice' | 'clean' | 'none';

/** Told apart without colour. */
const SIGNS: Readonly<Record<Mark, string>> = {
  failed: 'F',
  error: 'E',
  warning: 'W',
  notice: 'n',
  clean: '·',
  none: ' ',
};
const TONES: Readonly<Record<Mark, (text: string) => string>> = {
  failed: (text) => colors.inverse(colors.red(text)),
  error: (text) => colors.bold(colors.red(text)),
  warning: colors.yellow,
  notice: colors.cyan,
  clean: colors.dim,
  none: String,
};
const LEGEND: readonly Mark[] = ['failed', 'error', 'warning', 'notice', 'clean'];
const GAP = 2;
const LEAST_LABEL = 12;

/** Pages by profiles, each with the sign of the gravest that was found there; no line is wider than there are columns. */
export function matrixLines(manifest: Manifest, columns: number): string[] {
  const { pages, profiles } = manifest;
  const heads = columnHeads(profiles);
  const marks = marksOf(manifest);
  const cell = Math.max(...heads.map((head) => stringWidth(head))) + GAP;
  const labels = pages.map(sourceOf);
  const label = Math.min(
    Math.max(LEAST_LABEL, ...labels.map((text) => stringWidth(text))),
    Math.max(LEAST_LABEL, columns - cell * profiles.length, Math.floor(columns / 3)),
  );
  const perBlock = Math.max(1, Math.floor((columns - label) / cell));
  const lines: string[] = [];
  const corner = heads[0]?.startsWith('#') ? '' : 'px wide';
  for (let from = 0; from < profiles.length; from += perBlock) {
    const part = profiles.slice(from, from + perBlock);
    if (from > 0) lines.push('');
    lines.push(
      corner.padEnd(label) +
        heads
          .slice(from, from + perBlock)
          .map((head) => head.padStart(cell))
          .join(''),
    );
    for (const [i, { id }] of pages.entries()) {
      const shown = middleCut(labels[i]!, label);
      const cells = part.map(({ name }) => {
        const mark = marks.get(`${id}\n${name}`) ?? 'none';
        return ' '.repeat(cell - 1) + TONES[mark](SIGNS[mark]);
      });
      lines.push((shown + ' '.repeat(label - stringWidth(shown)) + cells.join('')).trimEnd());
    }
  }
  const used = new Set(marks.values());
  const legend = LEGEND.filter((mark) => used.has(mark)).map((mark) => `${SIGNS[mark]} ${mark}`);
  const named = heads[0]?.startsWith('#') ? profiles.map(({ name }, i) => `${heads[i]!} ${name}`) : [];
  return [
    ...lines,
    '',
    ...wrapped('', [...named, ...legend].join('   '), columns).map((line) => colors.dim(line)),
  ];
}

function marksOf({ renders, findings }: Manifest): Map<string, Mark> {
  const marks = new Map<string, Mark>();
  for (const { page, profile, status } of renders)
    marks.set(`${page}\n${profile}`, status === 'failed' ? 'failed' : 'clean');
  for (const severity of ['notice', 'warning', 'error'] as const) {
    for (const finding of findings) {
      if (finding.waived || finding.severity !== severity) continue;
      for (const { page, profile } of finding.seen) {
        const at = `${page}\n${profile}`;
        if (marks.get(at) !== 'failed') marks.set(at, severity);
      }
    }
  }
  return marks;
}
