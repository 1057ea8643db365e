import { relative } from 'node:path';
import { Command } from 'commander';
import prettyBytes from 'pretty-bytes';
import { count } from '../../core/geometry/format.js';
import { IsopticError } from '../../core/errors.js';
import { findRuns, RUNS_FOLDER, type FoundRun } from '../../run/find-runs.js';
import { localDay, twoDigits } from '../../run/local-day.js';
import { RunFolder } from '../../run/run-folder.js';
import { plainTable } from '../output/plain-table.js';

const EXAMPLES = `
Examples:
  isoptic runs                              what was rendered here, the newest first
  isoptic runs --prune --keep 10            what would go if the ten newest were kept
  isoptic runs --prune --older 30 --yes     removes what is older than 30 days`;

interface Options {
  readonly prune?: boolean;
  readonly keep?: string;
  readonly older?: string;
  readonly yes?: boolean;
  readonly json?: boolean;
}

const DAY_MS = 86_400_000;

export function runsCommand(): Command {
  return new Command('runs')
    .argument('[folder]', 'where to look for runs', RUNS_FOLDER)
    .option('--prune', 'say which runs would go, by --keep or --older')
    .option('--keep <number>', 'with --prune: the newest so many stay')
    .option('--older <days>', 'with --prune: those older than so many days go')
    .option('--yes', 'with --prune: remove them')
    .option('--json', 'print the list as JSON')
    .addHelpText('after', EXAMPLES)
    .action(async (folder: string, options: Options) => {
      const { runs, notes } = await findRuns(folder);
      for (const note of notes) process.stderr.write(`Note: ${note}\n`);
      if (options.prune === true) return prune(runs, options);
      for (const key of ['keep', 'older', 'yes'] as const) {
        if (options[key] === undefined) continue;
        throw new IsopticError(
          'bad-option',
          `--${key}: goes with --prune.`,
          'Add --prune, or leave it away.',
        );
      }
      if (options.json === true) {
        process.stdout.write(`${JSON.stringify(runs.map(asJson), null, 2)}\n`);
        return;
      }
      if (runs.length === 0) {
        process.stdout.write(`There are no runs in ${folder}. \`isoptic check\` writes one.\n`);
        return;
      }
      process.stdout.write(`${tableOf(runs)}\n`);
    });
}

async function prune(runs: readonly FoundRun[], { keep, older, yes }: Options): Promise<void> {
  if (keep === undefined && older === undefined) {
    throw new IsopticError(
      'bad-option',
      '--prune: it is not said what may go.',
      'Add --keep NUMBER or --older DAYS; with both, only what is beyond both goes.',
    );
  }
  const kept = keep === undefined ? 0 : wholeNumber('--keep', keep);
  const before = older === undefined ? Infinity : Date.now() - wholeNumber('--older', older) * DAY_MS;
  const going = runs.slice(kept).filter(({ manifest }) => Date.parse(manifest.startedAt) < before);
  if (going.length === 0) {
    process.stdout.write(
      `Nothing goes: ${count(runs.length, 'run')} ${runs.length === 1 ? 'stays' : 'stay'}.\n`,
    );
    return;
  }
  const bytes = prettyBytes(going.reduce((sum, run) => sum + run.bytes, 0));
  process.stdout.write(`${tableOf(going)}\n\n`);
  if (yes !== true) {
    process.stdout.write(
      `${count(going.length, 'run')}, ${bytes}, would go. Add --yes to remove ${going.length === 1 ? 'it' : 'them'}.\n`,
    );
    return;
  }
  for (const { path } of going) await RunFolder.remove(path);
  process.stdout.write(`${count(going.length, 'run')}, ${bytes}, removed.\n`);
}

function wholeNumber(option: string, text: string): number {
  if (/^\d+$/.test(text)) return Number(text);
  throw new IsopticError('bad-option', `${option} ${text}: not a whole number.`, 'Write one, 0 or more.');
}

function tableOf(runs: readonly FoundRun[]): string {
  return plainTable(
    ['Run', 'Started', 'Pages', 'Profiles', 'Errors', 'Warnings', 'Notices', 'Size'],
    runs.map(({ path, manifest: { startedAt, pages, profiles, summary }, bytes }) => [
      relative(process.cwd(), path),
      localTime(new Date(startedAt)),
      String(pages.length),
      String(profiles.length),
      String(summary.errors),
      String(summary.warnings),
      String(summary.notices),
      prettyBytes(bytes),
    ]),
    ['Pages', 'Profiles', 'Errors', 'Warnings', 'Notices', 'Size'],
  );
}

function asJson({ path, manifest: { startedAt, pages, profiles, summary }, bytes }: FoundRun) {
  return { path, startedAt, pages: pages.length, profiles: profiles.length, ...summary, bytes };
}

/** `2026-11-23 08:31`, by the clock of this machine. */
function localTime(date: Date): string {
  return `${localDay(date)} ${twoDigits(date.getHours())}:${twoDigits(date.getMinutes())}`;
}
