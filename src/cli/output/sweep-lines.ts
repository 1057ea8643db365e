import colors from 'picocolors';
import stringWidth from 'string-width';
import { count } from '../../core/geometry/format.js';
import type { Manifest } from '../../run/manifest.js';
import { pageName } from '../../report/page-name.js';
import { TONE } from './finding-lines.js';
import { middleCut, plainText, wrapped } from './wrapped.js';

type Sweep = NonNullable<Manifest['sweep']>[number];

/** The widest name beside a bar, in columns. */
const LABEL = 26;
const GAP = 2;
/** More bars than these are in the list below. */
const MOST_BARS = 12;

/** What a search over the sizes of a page found: a ruler with its layouts and where something fails, and each edge. */
export function sweepLines(sweep: Sweep, manifest: Manifest, columns: number): string[] {
  const { axis, from, to, across, layouts, edges, error, notes, exhaustive } = sweep;
  const page = manifest.pages.find(({ id }) => id === sweep.page);
  const sizes = to - from + 1;
  const [along, other] = axis === 'width' ? ['wide', 'high'] : ['high', 'wide'];
  const head = `${colors.bold(plainText(page ? pageName(page) : sweep.page))}  ${from} to ${to} px ${along}, ${across} px ${other}`;
  if (error !== null)
    return [head, ...wrapped(`  ${colors.red('not searched')}  `, plainText(error), columns)];
  const looked = exhaustive ? `all ${sizes} ${axis}s looked at` : `${layouts} of ${sizes} ${axis}s looked at`;
  return [
    head,
    colors.dim(`${count(edges.length + 1, 'layout')}, ${looked}`),
    '',
    ...rulerLines(sweep, manifest, columns),
    ...(edges.length > 0 ? ['', 'The layout changes'] : []),
    ...edges.flatMap(({ width, message }) =>
      wrapped(`  from ${String(width).padStart(4)}  `, plainText(message), columns),
    ),
    ...notes.flatMap((note) => wrapped('  ', plainText(note), columns).map((line) => colors.yellow(line))),
  ];
}

/** Sizes from left to right, the layouts in a line, and a bar for each finding where it shows. */
function rulerLines({ page, from, to, edges }: Sweep, { findings }: Manifest, columns: number): string[] {
  const length = columns - LABEL - GAP;
  const at = (size: number) => Math.round(((size - from) / Math.max(1, to - from)) * (length - 1));
  const line = (label: string, text: string) => {
    const cut = middleCut(label, LABEL);
    return `${cut}${' '.repeat(LABEL + GAP - stringWidth(cut))}${text}`;
  };
  const layouts = Array.from({ length }, () => '─');
  for (const { width } of edges) layouts[at(width)] = '┼';
  layouts[0] = '├';
  layouts[length - 1] = '┤';
  const bars = findings
    .filter((finding) => !finding.waived && finding.severity !== 'notice' && finding.spans?.[page])
    .map((finding) => {
      const bar = Array.from({ length }, () => ' ');
      for (const [min, max] of finding.spans![page]!) bar.fill('█', at(min), at(max) + 1);
      return line(`${finding.rule} ${finding.selector}`, TONE[finding.severity](bar.join('').trimEnd()));
    });
  const left = bars.length - MOST_BARS;
  return [
    line('px', colors.dim(scaleText([from, ...edges.map(({ width }) => width), to], at, length))),
    line('layouts', layouts.join('')),
    ...bars.slice(0, MOST_BARS),
    ...(left > 0 ? [colors.dim(`and ${left} more`)] : []),
  ];
}

/** As many of the sizes as have room, each where it is; both ends always. */
function scaleText(sizes: readonly number[], at: (size: number) => number, length: number): string {
  const text = Array.from({ length }, () => ' ');
  const put = (size: number) => {
    const digits = String(size);
    const start = Math.min(at(size), length - digits.length);
    const isFree = text.slice(Math.max(0, start - 1), start + digits.length + 1).every((char) => char === ' ');
    if (isFree) for (const [i, digit] of [...digits].entries()) text[start + i] = digit;
  };
  put(sizes[0]!);
  put(sizes.at(-1)!);
  for (const size of sizes.slice(1, -1)) put(size);
  return text.join('');
}
