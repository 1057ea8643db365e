import { labelAt, type RangeLabel } from '../../core/sweep/ranges.js';
import type { Severity } from '../../core/sightings/sighting.js';
import type { Span } from '../../core/geometry/span.js';
import { svgRect } from '../../run/svg.js';
import type { Drawing, Item } from '../sheet/draw.js';
import { GROUNDS, SEVERITY_TONES } from '../sheet/options.js';

/** What is drawn round the page in every picture of a film. */
export interface FilmRuler {
  readonly from: number;
  readonly to: number;
  /** First sizes of new layouts, with what changes there. */
  readonly edges: readonly { readonly width: number; readonly message: string }[];
  readonly ranges: readonly RangeLabel[];
  readonly failing: readonly {
    readonly name: string;
    readonly severity: Severity;
    readonly spans: readonly Span[];
  }[];
}

export interface FilmFrame {
  /** Path of the page's picture, in the folder of the film. */
  readonly picture: string;
  /** The window, CSS px. */
  readonly size: { readonly width: number; readonly height: number };
  /** What is written over it. */
  readonly title: string;
  readonly subtitle: string;
  /** Where on the ruler it is; null where there is none. */
  readonly at: number | null;
}

/** The size of all pictures of a film, px, and how large the page is shown in them. */
export interface FilmCanvas {
  readonly width: number;
  readonly height: number;
  /** Px of the film a CSS px. */
  readonly scale: number;
}

const MARGIN = 16;
const HEAD = 52;
const FOOT = 44;
const BAND = 8;
const BAR = 4;
/** Findings with a bar of their own. */
const MOST_BARS = 4;

/** Room for the largest window of a film, made smaller where the film would be wider than it may. */
export function canvasFor(
  largest: { readonly width: number; readonly height: number },
  most: number,
): FilmCanvas {
  const scale = Math.min(1, (most - 2 * MARGIN) / largest.width);
  // Even sides: other formats of films ask for them.
  const even = (length: number) => 2 * Math.ceil(length / 2);
  return {
    width: even(Math.max(320, largest.width * scale + 2 * MARGIN)),
    height: even(largest.height * scale + HEAD + FOOT),
    scale,
  };
}

/** One picture of a film: the window in its middle, over it where it stands, below it the ruler with layouts and failing sizes. */
export function drawingOf(frame: FilmFrame, ruler: FilmRuler | null, canvas: FilmCanvas): Drawing {
  const { ink, soft, line } = GROUNDS.light;
  const width = frame.size.width * canvas.scale;
  const height = frame.size.height * canvas.scale;
  const place = {
    x: Math.round((canvas.width - width) / 2),
    y: HEAD,
    width: Math.round(width),
    height: Math.round(height),
  };
  const border = svgRect(
    { x: place.x - 1, y: place.y - 1, width: place.width + 2, height: place.height + 2 },
    `fill="${line}"`,
  );
  const room = { x: MARGIN, width: canvas.width - 2 * MARGIN };
  const items: Item[] = [
    {
      kind: 'piece',
      piece: {
        picture: frame.picture,
        size: { left: 0, ...frame.size },
        part: { x: 0, y: 0, ...frame.size },
        place,
      },
      at: place,
    },
    {
      kind: 'text',
      lines: [
        { text: frame.title, tone: 'ink', bold: true },
        { text: frame.subtitle === '' ? ' ' : frame.subtitle, tone: 'soft' },
      ],
      at: { x: MARGIN, y: 7, width: room.width, height: HEAD - 8 },
    },
  ];
  const under =
    border + (ruler && frame.at !== null ? rulerSvg(ruler, frame.at, canvas, room, { ink, soft }) : '');
  return { width: canvas.width, height: canvas.height, under, over: '', items };
}

function rulerSvg(
  { from, to, edges, failing }: FilmRuler,
  at: number,
  canvas: FilmCanvas,
  room: { readonly x: number; readonly width: number },
  { ink, soft }: { readonly ink: string; readonly soft: string },
): string {
  const top = canvas.height - FOOT + 10;
  const place = (size: number) => room.x + ((size - from) / Math.max(1, to - from)) * room.width;
  const starts = [from, ...edges.map(({ width }) => width)];
  const bands = starts.map((start, i) => {
    const end = starts[i + 1] ?? to;
    const isHere = at >= start && (at < end || i === starts.length - 1);
    return svgRect(
      { x: place(start), y: top, width: Math.max(1, place(end) - place(start) - 1), height: BAND },
      `fill="${isHere ? soft : '#c9ccd1'}"`,
    );
  });
  const bars = failing.slice(0, MOST_BARS).flatMap(({ severity, spans }, row) =>
    spans.map(({ min, max }) =>
      svgRect(
        {
          x: place(min),
          y: top + BAND + 4 + row * (BAR + 1),
          width: Math.max(2, place(max) - place(min)),
          height: BAR,
        },
        `fill="${SEVERITY_TONES[severity]}" opacity="${at >= min && at <= max ? 1 : 0.35}"`,
      ),
    ),
  );
  const needle = svgRect(
    { x: place(at) - 1, y: top - 4, width: 2, height: BAND + 8 + MOST_BARS * (BAR + 1) },
    `fill="${ink}"`,
  );
  return [...bands, ...bars, needle].join('');
}

/** What is said of a size: its range, what changed there, and what fails. */
export function subtitleAt({ edges, ranges, failing }: FilmRuler, at: number): string {
  const label = labelAt(ranges, at);
  const change = edges.find(({ width }) => width === at)?.message ?? null;
  const fails = failing.filter(({ spans }) => spans.some(({ min, max }) => at >= min && at <= max));
  const names = fails.slice(0, 2).map(({ name }) => name);
  const more = fails.length > names.length ? ` and ${fails.length - names.length} more` : '';
  const said = fails.length > 0 ? `${names.join(', ')}${more}` : null;
  return [label, change, said].filter((part) => part !== null).join('  ·  ');
}
