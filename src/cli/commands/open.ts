import { access } from 'node:fs/promises';
import { join, relative } from 'node:path';
import { Command } from 'commander';
import { IsopticError, messageOf } from '../../core/errors.js';
import { findRuns, RUNS_FOLDER } from '../../run/find-runs.js';
import { readRun } from '../../run/read-run.js';

const EXAMPLES = `
Examples:
  isoptic open                              the newest run
  isoptic open isoptic-runs/demo/as-found   this one`;

const STAYS_MS = 1500;

export function openCommand(): Command {
  return new Command('open')
    .argument('[run]', `the folder that a check wrote (default: the newest in ${RUNS_FOLDER})`)
    .addHelpText('after', EXAMPLES)
    .action(async (named: string | undefined) => {
      const run = named ?? (await newest());
      await readRun(run);
      const report = join(run, 'report.html');
      await access(report).catch(() => {
        throw new IsopticError(
          'no-report',
          `${report}: the report is gone.`,
          `Write it again: isoptic report ${run} --as html`,
        );
      });
      process.stdout.write(`${relative(process.cwd(), report)}\n`);
      await show(report);
    });
}

async function newest(): Promise<string> {
  const { runs } = await findRuns(RUNS_FOLDER);
  const [first] = runs;
  if (first) return first.path;
  throw new IsopticError(
    'no-run',
    `There is no run in ${RUNS_FOLDER} to open.`,
    'Name the folder of one, or make one with `isoptic check`.',
  );
}

/** In the user's own browser, which stays when this ends. */
async function show(path: string): Promise<void> {
  const { default: open } = await import('open');
  const failed = (why: string) =>
    new IsopticError('no-opener', `The report could not be opened here (${why}).`, `Open ${path} yourself.`);
  try {
    const opener = await open(path);
    await new Promise<void>((resolve, reject) => {
      opener.once('error', reject);
      opener.once('exit', (status) => {
        if (status === 0 || status === null) resolve();
        else reject(new Error(`${opener.spawnfile} ended with status ${status}`));
      });
      // An opener that stays has opened it.
      setTimeout(resolve, STAYS_MS);
    });
  } catch (error) {
    throw failed(messageOf(error));
  }
}
