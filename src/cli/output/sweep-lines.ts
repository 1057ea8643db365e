import colors from 'picocolors';
import { count } from '../../core/geometry/format.js';
import type { Manifest } from '../../run/manifest.js';
import { pageName } from '../../report/page-name.js';
import { TONE } from './finding-lines.js';
import { rulerOf } from './ruler.js';
import { plainText, wrapped } from './wrapped.js';

type Sweep = NonNullable<Manifest['sweep']>[number];

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

/** The layouts in a line, and a bar for each finding where it shows. */
function rulerLines(sweep: Sweep, { findings }: Manifest, columns: number): string[] {
  const { page, from, to, ranges = [] } = sweep;
  const edges = sweep.edges.map(({ width }) => width);
  const ruler = rulerOf(sweep, columns);
  const shown = findings.filter(
    (finding) => !finding.waived && finding.severity !== 'notice' && finding.spans?.[page],
  );
  const left = shown.length - MOST_BARS;
  return [
    ruler.scale([from, ...edges, to]),
    ...(ranges.length > 1 ? [ruler.names('ranges', ranges)] : []),
    ruler.line('layouts', edges),
    ...shown
      .slice(0, MOST_BARS)
      .map(({ rule, selector, spans, severity }) =>
        ruler.bar(`${rule} ${selector}`, spans![page]!, TONE[severity]),
      ),
    ...(left > 0 ? [colors.dim(`and ${left} more`)] : []),
  ];
}
