import { readFile } from 'node:fs/promises';
import { parse as parseCsv } from 'csv-parse/sync';
import { stringify } from 'yaml';
import { IsopticError, messageOf } from '../core/errors.js';
import { count } from '../core/geometry/format.js';
import { coveringLineup, type Visit } from '../core/profile/cover.js';
import { catalogueFor } from './catalogue-for.js';
import { plainTable } from './output/plain-table.js';

export interface ImportOptions {
  readonly cover: string;
  readonly widthColumn?: string;
  readonly heightColumn?: string;
  readonly ratioColumn?: string;
  readonly visitsColumn?: string;
  readonly name: string;
  readonly json?: boolean;
  readonly config?: string;
}

/** Proposes a lineup for the visits of a file, and prints it. @throws IsopticError `bad-option`, or for what the file is not */
export async function importVisits(file: string, options: ImportOptions): Promise<void> {
  const cover = Number(options.cover);
  if (!(cover > 0 && cover <= 1)) {
    throw new IsopticError(
      'bad-option',
      `--cover ${options.cover}: not a share.`,
      'Give a number over 0, up to 1.',
    );
  }
  const catalogue = await catalogueFor(options.config);
  const { visits, bad } = readVisits(await readText(file), file, options);
  const proposal = coveringLineup(visits, catalogue.profiles, cover);
  if (options.json === true) {
    process.stdout.write(`${JSON.stringify({ ...proposal, malformed: bad }, null, 2)}\n`);
    return;
  }
  const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
  let sum = 0;
  const rows = proposal.lineup.map(({ name, visits, share }) => [
    name,
    visits,
    percent(share),
    percent((sum += share)),
  ]);
  process.stdout.write(
    `${plainTable(['profile', 'visits', 'share', 'together'], rows, ['visits', 'share', 'together'])}\n\n` +
      `${count(proposal.lineup.length, 'profile covers', 'profiles cover')} ${percent(proposal.covered)} of ${proposal.total} visits. For isoptic.yaml:\n\n` +
      stringify({ lineups: { [options.name]: proposal.lineup.map((entry) => entry.name) } }),
  );
  if (bad.length > 0) {
    const named = bad.slice(0, 5).map(({ line, why }) => `line ${line} (${why})`);
    const rest = bad.length > 5 ? ` and ${bad.length - 5} more` : '';
    process.stderr.write(`${count(bad.length, 'row')} could not be read: ${named.join(', ')}${rest}.\n`);
  }
}

async function readText(file: string): Promise<string> {
  return readFile(file, 'utf8').catch((error: unknown) => {
    throw new IsopticError('bad-csv', `${file}: can not be read (${messageOf(error)}).`, 'Name a CSV file.');
  });
}

type Row = Readonly<Record<string, string>>;
interface Bad {
  readonly line: number;
  readonly why: string;
}

function readVisits(text: string, file: string, options: ImportOptions): { visits: Visit[]; bad: Bad[] } {
  let records: { record: Row; info: { lines: number } }[];
  try {
    const delimiter = [',', ';', '\t'];
    records = parseCsv(text, {
      columns: true,
      bom: true,
      trim: true,
      delimiter,
      info: true,
      relax_column_count: true,
      skip_empty_lines: true,
    });
  } catch (error) {
    throw new IsopticError(
      'bad-csv',
      `${file}: ${messageOf(error)}.`,
      'Give a CSV file with a header, UTF-8.',
    );
  }
  const names = Object.keys(records[0]?.record ?? {});
  const column = (wanted: string | undefined, option: string, pattern: RegExp) => {
    if (wanted === undefined) return names.find((name) => pattern.test(name));
    if (names.includes(wanted)) return wanted;
    throw new IsopticError(
      'bad-csv',
      `${option} ${wanted}: ${file} has no such column.`,
      `It has: ${names.join(', ')}.`,
    );
  };
  const rows = records.map(({ record }) => record);
  const size =
    columnOf(rows, names, SIZE) ??
    column(undefined, '', /resolution|viewport size|screen size|^size$|^viewport$/i);
  const width = column(options.widthColumn, '--width-column', /width/i) ?? size;
  const height = column(options.heightColumn, '--height-column', /height/i) ?? size;
  const ratio = column(options.ratioColumn, '--ratio-column', /ratio|dpr|density/i);
  const others = names.filter((name) => ![size, width, height, ratio].includes(name));
  const numbers = others.filter((name) => columnOf(rows, [name], WHOLE_NUMBER) !== undefined);
  const visitCount =
    options.visitsColumn === undefined
      ? (numbers.find((name) => /visit|session|user|view|count|hits/i.test(name)) ?? numbers[0])
      : column(options.visitsColumn, '--visits-column', /^$/);
  if (width === undefined || visitCount === undefined) {
    const missing = width === undefined ? 'widths (--width-column)' : 'visits (--visits-column)';
    throw new IsopticError(
      'bad-csv',
      `${file}: no column of ${missing} was found.`,
      `Its columns are: ${names.join(', ')}.`,
    );
  }
  const visits: Visit[] = [];
  const bad: Bad[] = [];
  for (const { record, info } of records) {
    const visit = {
      width: numberIn(record[width], 0),
      height: height === undefined ? null : numberIn(record[height], height === size ? 1 : 0),
      dpr: ratio === undefined ? null : numberIn(record[ratio], 0),
      visits: numberIn(record[visitCount]?.replace(/(?<=\d)[\s,.'](?=\d{3})/g, ''), 0),
    };
    const why = problemOf(visit);
    if (why) bad.push({ line: info.lines, why });
    else visits.push({ ...visit, height: visit.height === null ? null : visit.height });
  }
  if (visits.length === 0) {
    throw new IsopticError(
      'bad-csv',
      `${file}: no row could be read, with widths from "${width}" and visits from "${visitCount}".`,
      'Name other columns with --width-column, --height-column and --visits-column.',
    );
  }
  return { visits, bad };
}

/** `390x844`, `390 × 844`, `390 by 844` */
const SIZE = /^\s*\d{2,5}\s*(?:[x×*]|by)\s*\d{2,5}\b/i;
const WHOLE_NUMBER = /^\s*\d{1,3}(?:[\s,.']?\d{3})*\s*$/;
/** A column is what most of its cells are: an export ends in sums and has rows of its own. */
const MOST = 0.6;

/** The first column whose cells look like that, whatever its name. */
function columnOf(rows: readonly Row[], names: readonly string[], pattern: RegExp): string | undefined {
  return names.find((name) => {
    const cells = rows.map((row) => row[name] ?? '').filter((cell) => cell !== '');
    return cells.length > 0 && cells.filter((cell) => pattern.test(cell)).length >= MOST * cells.length;
  });
}

function problemOf({ width, height, dpr, visits }: Visit): string | null {
  if (!(width >= 50 && width <= 16384)) return 'no width';
  if (height !== null && !(height >= 50 && height <= 16384)) return 'no height';
  if (dpr !== null && !(dpr >= 0.5 && dpr <= 9)) return 'no pixel ratio';
  return visits >= 0 ? null : 'no number of visits';
}

/** The `index`-th number in a text; NaN where there is none. */
function numberIn(text: string | undefined, index: number): number {
  const found = text?.match(/\d+(?:\.\d+)?/g)?.[index];
  return found === undefined ? Number.NaN : Number(found);
}
