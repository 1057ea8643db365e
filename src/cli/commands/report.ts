import { dirname, join, relative, resolve } from 'node:path';
import { Command } from 'commander';
import { IsopticError } from '../../core/errors.js';
import { SEVERITIES, type Severity } from '../../core/sightings/sighting.js';
import { FORMATS, parseFormats } from '../../report/formats.js';
import { readRun } from '../../run/read-run.js';
import { writeReport } from '../write-formats.js';

const EXAMPLES = `
Examples:
  isoptic report isoptic-runs/demo/as-found --as markdown --out -      for a comment on a change
  isoptic report isoptic-runs/demo/as-found --as csv --out faults.csv  one row a sighting
  isoptic report isoptic-runs/demo/as-found --as junit,sarif           into the run's folder
  isoptic report isoptic-runs/demo/as-found --as html --single-file --out ferries.html   to be sent

Formats:
  html      the report that a check writes     csv       one row for each finding on a profile
  json      the run's manifest                 junit     a case a page and profile, for build servers
  markdown  counts, a matrix, the worst ten    sarif     2.1.0, at the author's declaration where known
  pdf       the pages one after another`;

interface Options {
  readonly as: string;
  readonly out?: string;
  readonly failOn: string;
  readonly singleFile?: boolean;
  readonly browser?: string;
  readonly against?: string;
}

export function reportCommand(): Command {
  return new Command('report')
    .argument('<run>', 'the folder that a check wrote')
    .requiredOption('--as <formats>', `${Object.keys(FORMATS).join(', ')}; several with commas`)
    .option(
      '--out <path>',
      'a file for one format, a folder for several, - for standard output (default: the run)',
    )
    .option('--single-file', 'html that holds its pictures itself, to be sent as one file')
    .option('--against <run>', 'html that tells what is new from what this earlier run had already')
    .option('--browser <program>', 'the Chromium or Chrome that prints, for pdf')
    .option('--fail-on <severity>', 'what fails a case of junit: error, warning or notice', 'error')
    .addHelpText('after', EXAMPLES)
    .action(async (run: string, options: Options) => {
      const names = parseFormats(options.as, '--as');
      const failOn = severityOf(options.failOn);
      const { out, singleFile: single = false, browser } = options;
      if (out === '-' && names.length > 1) {
        throw new IsopticError(
          'bad-option',
          `--out -: standard output takes one format, not ${names.length}.`,
          'Name a folder, or ask for one format.',
        );
      }
      if (names.includes('html') && !single && out !== undefined && !isInRun(run, out, names.length > 1)) {
        throw new IsopticError(
          'bad-option',
          `--out ${out}: the report as html shows the pictures that lie beside it, in the run.`,
          'Leave --out away for html, or add --single-file to have the pictures in it.',
        );
      }
      const manifest = await readRun(run);
      const known =
        options.against === undefined
          ? undefined
          : (await readRun(options.against)).findings.map(({ id }) => id);
      for (const name of names) {
        const { file, make } = FORMATS[name];
        const text = await make(manifest, { failOn, run, single, browser, known });
        if (out === '-') {
          process.stdout.write(text);
          continue;
        }
        const path = out === undefined ? join(run, file) : names.length > 1 ? join(out, file) : out;
        await writeReport(path, text);
        process.stdout.write(`${relative(process.cwd(), path)}\n`);
      }
    });
}

function severityOf(text: string): Severity {
  const found = SEVERITIES.find((severity) => severity === text);
  if (found) return found;
  throw new IsopticError(
    'bad-option',
    `--fail-on ${text}: not a severity.`,
    `Write ${SEVERITIES.join(', ')}.`,
  );
}

function isInRun(run: string, out: string, isFolder: boolean): boolean {
  return out !== '-' && resolve(isFolder ? out : dirname(out)) === resolve(run);
}
