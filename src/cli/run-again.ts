import { readFile } from 'node:fs/promises';
import { join, relative, resolve } from 'node:path';
import { IsopticError, messageOf } from '../core/errors.js';
import { htmlReport } from '../report/html/write.js';
import { judgeAgain, type Judging } from '../run/judge-again.js';
import { manifestSchema, type Manifest } from '../run/manifest.js';
import { RunFolder } from '../run/run-folder.js';
import type { CheckResult } from './run-check.js';

/** Decides the findings of a stored run again, in place. @throws IsopticError `bad-run`, `no-layout`, `bad-usage` */
export async function runAgain(
  run: string,
  targets: readonly string[],
  judging: Judging,
): Promise<CheckResult> {
  if (targets.length > 0) {
    throw new IsopticError(
      'bad-usage',
      `--again ${run}: a stored run has its own pages.`,
      'Leave the targets out.',
    );
  }
  const folder = RunFolder.open(run);
  const manifest = await judgeAgain(await readRun(run), (path) => folder.full(path), judging);
  await folder.write('report.html', await htmlReport(manifest));
  await folder.writeManifest(manifest);
  return { manifest, reportPath: relative(process.cwd(), join(folder.path, 'report.html')) };
}

async function readRun(run: string): Promise<Manifest> {
  const path = join(resolve(run), 'run.json');
  try {
    return manifestSchema.parse(JSON.parse(await readFile(path, 'utf8')));
  } catch (error) {
    throw new IsopticError(
      'bad-run',
      `${run}: there is no run that can be read (${messageOf(error).split('\n', 1)[0]!}).`,
      'Name the folder that a check wrote.',
    );
  }
}
