import type { Manifest } from '../../run/manifest.js';
import { inMarkup, svgOf, svgRect } from '../../run/svg.js';
import { queryBegins } from '../../run/sweep/query-begins.js';
import { formatByEnding } from '../by-ending.js';
import { drawn, type Drawing, type Item } from '../sheet/draw.js';
import { GROUNDS, SEVERITY_TONES } from '../sheet/options.js';

type Sweep = NonNullable<Manifest['sweep']>[number];

export const RULER_FORMATS = ['.svg', '.png'] as const;
export type RulerFormat = (typeof RULER_FORMATS)[number];

const WIDTH = 1200;
const LABEL = 300;
const MARGIN = 24;
const ROW = 24;
const BAR = 12;
const QUERY = '#1857b8';

/** A bar of the ruler with its name. */
interface Row {
  readonly label: string;
  readonly spans: readonly (readonly [from: number, to: number])[];
  readonly fill: string;
}

/** @throws IsopticError `bad-option` */
export function rulerFormat(path: string): RulerFormat {
  return formatByEnding('--draw', path, 'ruler', RULER_FORMATS);
}

/** The ruler of one page: its layouts in a line, where each query holds, and where errors and warnings show. */
export async function drawnRuler(
  sweep: Sweep,
  { findings, pages }: Pick<Manifest, 'findings' | 'pages'>,
  format: RulerFormat,
): Promise<Buffer> {
  const rows: Row[] = [
    ...(sweep.queries ?? []).flatMap(({ text, spans }) =>
      spans && spans.length > 0 ? [{ label: text, spans, fill: QUERY }] : [],
    ),
    ...findings.flatMap(({ rule, selector, severity, waived, spans }) => {
      const own = spans?.[sweep.page];
      if (!own || waived || severity === 'notice') return [];
      return [{ label: `${rule} ${selector}`, spans: own, fill: SEVERITY_TONES[severity] }];
    }),
  ];
  const source = pages.find(({ id }) => id === sweep.page)?.source ?? sweep.page;
  const drawing = drawingOf(sweep, source, rows);
  if (format === '.svg') return svgOf(drawing, inSvg(drawing));
  return (await drawn(drawing, '', { ground: 'light' })).png().toBuffer();
}

function drawingOf(sweep: Sweep, source: string, rows: readonly Row[]): Drawing {
  const { from, to, edges } = sweep;
  const { line, soft } = GROUNDS.light;
  const left = LABEL + MARGIN;
  const length = WIDTH - left - MARGIN;
  const at = (size: number) => Math.round(left + ((size - from) / Math.max(1, to - from)) * length);
  const top = MARGIN + 2 * ROW;
  const height = top + (rows.length + 1) * ROW + MARGIN;
  const starts = [from, ...edges.map(({ width }) => width)];
  const bands = starts.map((start, i) => {
    const end = starts[i + 1] ?? to;
    const size = { x: at(start), y: top, width: Math.max(1, at(end) - at(start) - 1), height: BAR };
    return svgRect(size, `fill="${i % 2 === 0 ? soft : line}"`);
  });
  const bars = rows.flatMap(({ spans, fill }, row) =>
    spans.map(([min, max]) =>
      svgRect(
        { x: at(min), y: top + (row + 1) * ROW, width: Math.max(2, at(max) - at(min)), height: BAR },
        `fill="${fill}"`,
      ),
    ),
  );
  const text = (words: string, x: number, y: number, width: number): Item => ({
    kind: 'text',
    lines: [{ text: words, tone: 'ink' }],
    at: { x, y, width, height: ROW },
  });
  return {
    width: WIDTH,
    height,
    under: [...bands, ...bars].join(''),
    over: '',
    items: [
      text(`${source}, ${from} to ${to} px`, MARGIN, MARGIN - 8, WIDTH - 2 * MARGIN),
      ...roomFor([from, to, ...queryBegins(sweep), ...edges.map(({ width }) => width)], at).map((size) =>
        text(String(size), Math.min(at(size), WIDTH - MARGIN - NUMBER + 8), top - ROW + 4, NUMBER),
      ),
      text('layouts', MARGIN, top - 2, LABEL - MARGIN),
      ...rows.map(({ label }, row) => text(label, MARGIN, top + (row + 1) * ROW - 2, LABEL - MARGIN)),
    ],
  };
}

/** Room for a number, px. */
const NUMBER = 40;

/** As many sizes as have room for their numbers, the first ones before the others. */
function roomFor(sizes: readonly number[], at: (size: number) => number): number[] {
  const placed: number[] = [];
  for (const size of sizes)
    if (placed.every((other) => Math.abs(at(other) - at(size)) >= NUMBER)) placed.push(size);
  return placed;
}

/** The same for a browser, which has letters of its own. */
function inSvg({ under, items }: Drawing): string {
  const { ground, ink } = GROUNDS.light;
  const texts = items.flatMap((item) => {
    if (item.kind !== 'text') return [];
    const { x, y, width } = item.at;
    const words = inMarkup(item.lines.map((line) => line.text).join(' '));
    return [
      `<svg x="${x}" y="${y}" width="${width}" height="${ROW}"><text x="0" y="14" font-size="13" font-family="Inter, system-ui, sans-serif" fill="${ink}">${words}</text></svg>`,
    ];
  });
  return `<rect width="100%" height="100%" fill="${ground}"/>${under}${texts.join('')}`;
}
