import { join } from 'node:path';
import type { Sharp } from 'sharp';
import { count } from '../../core/geometry/format.js';
import { IsopticError } from '../../core/errors.js';
import type { Rect } from '../../core/geometry/rect.js';
import { query } from '../../core/identity/query.js';
import { layoutPath, readLayout } from '../../run/layout-file.js';
import type { Manifest } from '../../run/manifest.js';
import { svgRect } from '../../run/svg.js';
import { renderKey } from '../../run/render-key.js';
import { arranged } from './arrange.js';
import { cellsOf, type Cell, type ElementAt } from './cells.js';
import { drawn, type Item, type TextLine } from './draw.js';
import { GROUNDS, type SheetOptions } from './options.js';

/** Room for a cell's label, px. */
const LABEL = 62;
const LEAST_LABEL_WIDTH = 172;
const TITLE = 34;
const TONES = { error: '#d0103f', warning: '#c46a00', notice: '#5d7085' } as const;

/**
 * A contact sheet of pages of a run: one after another, each on all of its profiles.
 * @param pages ids
 * @throws IsopticError `no-layout`, `no-such-part`, `picture-gone`
 */
export async function sheetOf(
  manifest: Manifest,
  pages: readonly string[],
  run: string,
  options: SheetOptions,
): Promise<Sharp> {
  const elementAt = await elementsOf(manifest, pages, run, options);
  // Labels keep their size, so a sheet that is too large is laid out again until it is small enough.
  for (let { height } = options; ;) {
    const asked = { ...options, height };
    const sections = pages.map((page) => cellsOf(manifest, page, asked, elementAt));
    if (typeof options.part === 'object' && !sections.flat().some(({ pieces }) => pieces.length > 0)) {
      throw new IsopticError(
        'no-such-part',
        `--part ${options.part.selector}: no render of ${pages.join(', ')} has such an element.`,
        'Look a selector up in the report; a layout knows tags, ids, classes and places.',
      );
    }
    const whole = laidOut(manifest, pages, sections, asked);
    const factor = options.largest / Math.max(whole.width, whole.height);
    if (factor >= 1) return drawn(whole, run, options);
    height *= factor * SMALLER;
    if (height < LEAST_HEIGHT) {
      throw new IsopticError(
        'bad-option',
        `--largest ${options.largest}: so small, nothing is to be seen of ${count(sections.flat().length, 'picture')}.`,
        'Make it larger, name fewer pages with --page, or leave the labels away with --no-labels.',
      );
    }
  }
}

/** Labels don't get smaller with the pictures, so a little more is taken off than is too much. */
const SMALLER = 0.97;
/** Less of a screen says nothing, px. */
const LEAST_HEIGHT = 8;

function laidOut(
  manifest: Manifest,
  pages: readonly string[],
  sections: readonly (readonly Cell[])[],
  options: SheetOptions,
) {
  const { gap, labels, columns, ground } = options;
  const label = labels ? LABEL : 0;
  const items: Item[] = [];
  const [under, over]: [string[], string[]] = [[], []];
  let [width, top] = [0, 0];
  for (const [i, cells] of sections.entries()) {
    const boxes = cells.map((cell) => ({
      width: labels ? Math.max(LEAST_LABEL_WIDTH, cell.width) : cell.width,
      height: cell.height + label,
    }));
    const { places, ...size } = arranged(boxes, columns, gap);
    const start = labels ? top + TITLE : top;
    if (labels) {
      const page = manifest.pages.find(({ id }) => id === pages[i])!;
      const state = page.state === undefined ? '' : `: ${page.state}`;
      const lines: TextLine[] = [{ text: `${page.title || page.source}${state}`, tone: 'ink', bold: true }];
      items.push({
        kind: 'text',
        lines,
        at: { x: gap, y: top + gap, width: size.width - 2 * gap, height: TITLE },
      });
    }
    for (const [at, cell] of cells.entries()) {
      const { x, y } = { x: places[at]!.x, y: start + places[at]!.y };
      if (labels) {
        const lines = labelOf(manifest, cell);
        items.push({ kind: 'text', lines, at: { x, y, width: boxes[at]!.width + gap / 2, height: LABEL } });
      }
      const move = (rect: Rect): Rect => ({ ...rect, x: rect.x + x, y: rect.y + y + label });
      under.push(...underOf(cell, move, ground));
      for (const piece of cell.pieces) items.push({ kind: 'piece', piece, at: move(piece.place) });
      for (const { rect, severity } of cell.outlines)
        over.push(box(move(rect), `fill="none" stroke="${TONES[severity]}" stroke-width="2"`));
      if (cell.missing !== null)
        items.push({
          kind: 'text',
          lines: [{ text: cell.missing, tone: 'soft' }],
          wraps: true,
          at: {
            x: x + 8,
            y: y + label + 8,
            width: Math.max(0, cell.width - 16),
            height: Math.max(0, cell.height - 16),
          },
        });
    }
    width = Math.max(width, size.width);
    top = start + size.height;
  }
  return {
    width: Math.max(1, Math.ceil(width)),
    height: Math.max(1, Math.ceil(top)),
    under: under.join(''),
    over: over.join(''),
    items,
  };
}

/** However small, it is seen. */
const box = (rect: Rect, style: string) =>
  svgRect({ ...rect, width: Math.max(1, rect.width), height: Math.max(1, rect.height) }, style);

/** The device, or a line round what has none. */
function underOf(
  { frame, pieces, width, height }: Cell,
  move: (rect: Rect) => Rect,
  ground: SheetOptions['ground'],
): string[] {
  const { body, bar, line } = GROUNDS[ground];
  if (frame)
    return [
      box(move({ x: 0, y: 0, ...frame.body }), `rx="${frame.radius}" fill="${body}"`),
      ...frame.bars.map((rect) => box(move(rect), `fill="${bar}"`)),
    ];
  const places = pieces.length > 0 ? pieces.map(({ place }) => place) : [{ x: 0, y: 0, width, height }];
  return places.map((place) => box(move(place), `fill="none" stroke="${line}" stroke-width="2"`));
}

function labelOf({ findings }: Manifest, { profile, render }: Cell): TextLine[] {
  const of = (severity: string) =>
    findings.filter(
      (finding) =>
        !finding.waived &&
        finding.severity === severity &&
        finding.seen.some((seen) => seen.page === render.page && seen.profile === render.profile),
    ).length;
  const counts = (['error', 'warning'] as const).flatMap((severity) =>
    of(severity) > 0 ? [count(of(severity), severity)] : [],
  );
  const ratio = profile.dpr === 1 ? '' : ` @${Math.round(profile.dpr * 100) / 100}`;
  return [
    { text: profile.name, tone: 'ink', bold: true },
    { text: `${profile.width} × ${profile.height}${ratio}, ${profile.orientation}`, tone: 'soft' },
    ...(counts.length > 0 ? [{ text: counts.join(', '), tone: 'soft' } as const] : []),
  ];
}

/** Where the element of a selector is on each render: from the layouts of the run, or from a finding of that very element. */
async function elementsOf(
  { renders, findings }: Manifest,
  pages: readonly string[],
  run: string,
  { part }: SheetOptions,
): Promise<ElementAt> {
  if (typeof part === 'string') return () => 'absent';
  const { selector } = part;
  const found = new Map<string, ReturnType<ElementAt>>();
  for (const { page, profile, status } of renders) {
    if (!pages.includes(page) || status === 'failed') continue;
    try {
      const { view } = await readLayout(join(run, layoutPath(page, profile)));
      const node = query(view, selector).find((at) => view.isRendered(at) && view.box(at).width > 0);
      if (node !== undefined) found.set(renderKey(page, profile), view.box(node));
    } catch (error) {
      if (!(error instanceof IsopticError)) {
        throw new IsopticError(
          'bad-option',
          `--part ${selector}: neither fold nor full, and no selector.`,
          'Write fold, full or a CSS selector.',
        );
      }
      // Where it is right, only layouts tell.
      const known = findings.find(
        (finding) => finding.selector === selector || finding.related.includes(selector),
      );
      const seen = known?.seen.find((one) => one.page === page && one.profile === profile);
      const rect = seen?.fault ?? seen?.rect;
      found.set(renderKey(page, profile), rect ?? 'unknown');
      if (!known) {
        throw new IsopticError(
          'no-layout',
          `--part ${selector}: the run has no layouts, so where the element is on each profile is not known.`,
          'Make the run again; without --no-layouts it keeps them.',
        );
      }
    }
  }
  return (page, profile) => found.get(renderKey(page, profile)) ?? 'absent';
}
