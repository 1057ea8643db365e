import { join, relative } from 'node:path';
import { Command, Option } from 'commander';
import { IsopticError } from '../../core/errors.js';
import { WEBP_SIDE } from '../../engine/picture-file.js';
import { loadSharp } from '../../engine/load-sharp.js';
import { SHEET_SCALES, type SheetOptions, type SheetScale } from '../../report/sheet/options.js';
import { sheetOf } from '../../report/sheet/sheet.js';
import { encoded, sheetFormat } from '../../report/sheet/write.js';
import { readRun } from '../../run/read-run.js';
import type { Manifest } from '../../run/manifest.js';
import { writeReport } from '../write-formats.js';

const EXAMPLES = `
Examples:
  isoptic sheet isoptic-runs/demo/as-found --page index.html --frame
  isoptic sheet isoptic-runs/demo/as-found --page fares.html --scale true --outlines --out fares.webp
  isoptic sheet isoptic-runs/demo/as-found --part full --out ferries.pdf   a sheet of paper a page`;

interface Options {
  readonly out?: string;
  readonly page?: readonly string[];
  readonly scale: SheetScale;
  readonly part: string;
  readonly height: string;
  readonly columns?: string;
  readonly gap: string;
  readonly ground: 'light' | 'dark';
  readonly labels: boolean;
  readonly outlines?: boolean;
  readonly frame?: boolean;
  readonly largest: string;
  readonly browser?: string;
}

export function sheetCommand(): Command {
  return new Command('sheet')
    .argument('<run>', 'the folder that a check wrote')
    .option(
      '--out <file>',
      'where to write it; its ending says what it is: png, webp or pdf (default: sheet.png in the run)',
    )
    .option(
      '--page <page>',
      'a page by its id or its file (repeatable; default: all)',
      (one: string, before: string[] | undefined) => [...(before ?? []), one],
    )
    .addOption(
      new Option(
        '--scale <scale>',
        'each as high as the others, true to each other in the hand, or one CSS px the same',
      )
        .choices(SHEET_SCALES)
        .default('fit'),
    )
    .option(
      '--part <part>',
      'the first screen (fold), the whole page in strips (full), or one element by its selector',
      'fold',
    )
    .option('--height <px>', 'of the highest screen, or of the strips', '480')
    .option('--columns <number>', 'profiles a row (default: as many as give the sheet a good shape)')
    .option('--gap <px>', 'between them', '24')
    .addOption(new Option('--ground <ground>', 'light or dark').choices(['light', 'dark']).default('light'))
    .option('--no-labels', 'leave out names, sizes and counts')
    .option('--outlines', 'outline the findings')
    .option('--frame', 'draw plain devices round the screens, their bars as blocks')
    .option('--largest <px>', 'of the sheet: a longer one is made smaller', '8000')
    .option('--browser <program>', 'the Chromium or Chrome that prints, for pdf')
    .addHelpText('after', EXAMPLES)
    .action(async (run: string, options: Options) => {
      // Loaded while the run is read.
      void loadSharp();
      const path = options.out ?? join(run, 'sheet.png');
      const format = sheetFormat(path);
      const largest = wholePx('--largest', options.largest, 200, 30_000);
      const drawing: SheetOptions = {
        scale: options.scale,
        part: options.part === 'fold' || options.part === 'full' ? options.part : { selector: options.part },
        height: wholePx('--height', options.height, 40, 4000),
        columns: options.columns === undefined ? null : wholePx('--columns', options.columns, 1, 200),
        gap: wholePx('--gap', options.gap, 0, 400),
        ground: options.ground,
        labels: options.labels,
        marks: options.outlines ?? false,
        frame: options.frame ?? false,
        largest: format === '.webp' ? Math.min(largest, WEBP_SIDE) : largest,
      };
      const manifest = await readRun(run);
      const pages = pagesOf(manifest, options.page ?? []);
      // On paper each page has a sheet of its own.
      const groups = format === '.pdf' ? pages.map((page) => [page]) : [pages];
      const sheets = [];
      for (const group of groups) sheets.push(await sheetOf(manifest, group, run, drawing));
      await writeReport(path, await encoded(sheets, format, options.browser));
      process.stdout.write(`${relative(process.cwd(), path)}\n`);
    });
}

/** Ids of the pages that were named, in the order of the run. */
function pagesOf({ pages }: Manifest, named: readonly string[]): string[] {
  const unknown = named.find((name) => !pages.some(({ id, source }) => id === name || source === name));
  if (unknown !== undefined) {
    throw new IsopticError(
      'bad-option',
      `--page ${unknown}: the run has no such page.`,
      `It has ${pages
        .slice(0, 8)
        .map(({ id }) => id)
        .join(', ')}${pages.length > 8 ? ' and more' : ''}.`,
    );
  }
  return pages
    .filter(({ id, source }) => named.length === 0 || named.includes(id) || named.includes(source))
    .map(({ id }) => id);
}

function wholePx(option: string, text: string, least: number, most: number): number {
  const value = Number(text);
  if (/^\d+$/.test(text) && value >= least && value <= most) return value;
  throw new IsopticError(
    'bad-option',
    `${option} ${text}: out of range.`,
    `Write a whole number from ${least} to ${most}.`,
  );
}
