import { join, relative } from 'node:path';
import { IsopticError } from '../core/errors.js';
import { htmlReport } from '../report/html/write.js';
import { heldAgainst, type Known } from '../run/against.js';
import { judgeAgain, type Judging } from '../run/judge-again.js';
import { readRun } from '../run/read-run.js';
import { RunFolder } from '../run/run-folder.js';
import type { ShownResult } from './run-check.js';

/** Decides the findings of a stored run again, in place. @throws IsopticError `bad-run`, `no-layout`, `bad-usage` */
export async function runAgain(
  run: string,
  targets: readonly string[],
  judging: Judging,
  against: Known | undefined,
): Promise<ShownResult> {
  if (targets.length > 0) {
    throw new IsopticError(
      'bad-usage',
      `--again ${run}: a stored run has its own pages.`,
      'Leave the targets out.',
    );
  }
  const folder = RunFolder.open(run);
  const judged = await judgeAgain(await readRun(run), (path) => folder.full(path), judging);
  const manifest = against ? heldAgainst(judged, against) : judged;
  await folder.writeWhole('report.html', await htmlReport(manifest, { run: folder.path }));
  await folder.writeManifest(manifest);
  return { manifest, reportPath: relative(process.cwd(), join(folder.path, 'report.html')) };
}
