import colors from 'picocolors';
import stringWidth from 'string-width';
import type { Manifest } from '../../run/manifest.js';
import { MARKS, marksOf, SIGNS, type Mark } from '../../report/marks.js';
import { pageName } from '../../report/page-name.js';
import { columnHeads } from '../../report/profile-names.js';
import { middleCut, plainText, wrapped } from './wrapped.js';

const TONES: Readonly<Record<Mark, (text: string) => string>> = {
  failed: (text) => colors.inverse(colors.red(text)),
  error: (text) => colors.bold(colors.red(text)),
  warning: colors.yellow,
  notice: colors.cyan,
  clean: colors.dim,
};
const GAP = 2;
const LEAST_LABEL = 12;

/** Pages by profiles, each with the sign of the gravest that was found there; no line is wider than there are columns. */
export function matrixLines(manifest: Manifest, columns: number): string[] {
  const { pages, profiles } = manifest;
  const heads = columnHeads(profiles);
  const markOf = marksOf(manifest);
  const cell = Math.max(...heads.map((head) => stringWidth(head))) + GAP;
  const labels = pages.map((page) => plainText(pageName(page)));
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
        const mark = markOf(id, name);
        return ' '.repeat(cell - 1) + (mark ? TONES[mark](SIGNS[mark]) : ' ');
      });
      lines.push((shown + ' '.repeat(label - stringWidth(shown)) + cells.join('')).trimEnd());
    }
  }
  const used = new Set(pages.flatMap(({ id }) => profiles.map(({ name }) => markOf(id, name))));
  const legend = MARKS.filter((mark) => used.has(mark)).map((mark) => `${SIGNS[mark]} ${mark}`);
  const named = heads[0]?.startsWith('#') ? profiles.map(({ name }, i) => `${heads[i]!} ${name}`) : [];
  return [
    ...lines,
    '',
    ...wrapped('', [...named, ...legend].join('   '), columns).map((line) => colors.dim(line)),
  ];
}
