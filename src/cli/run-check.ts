import { relative } from 'node:path';
import { runCheck as runRequest, type CheckRequest } from '../api/run-check.js';
import type { Manifest } from '../run/manifest.js';
import { interruptSignal } from './interrupt.js';
import { engineLog } from './output/log.js';
import { startProgress } from './output/progress.js';

/** How much of a check is shown while it runs. */
export interface Showing {
  readonly quiet: boolean;
  readonly verbose: boolean;
}

export interface ShownResult {
  readonly manifest: Manifest;
  /** The report's path as the user would write it from the working folder. */
  readonly reportPath: string;
}

/** Runs a check in the terminal: with progress, notes, the log, and Ctrl-C. */
export async function runCheck(request: CheckRequest, { quiet, verbose }: Showing): Promise<ShownResult> {
  const interrupt = interruptSignal();
  const progress = startProgress(quiet);
  try {
    const { manifest, report } = await runRequest(request, {
      signal: interrupt.signal,
      log: await engineLog(verbose),
      onEvent: (event) => {
        if (event.kind === 'found' && !quiet)
          for (const note of event.notes) process.stderr.write(`Note: ${note}.\n`);
        if (event.kind === 'rendered')
          void progress.then((shown) =>
            shown.update(event.done, event.of, `${event.page} on ${event.profile}`),
          );
      },
    });
    return { manifest, reportPath: relative(process.cwd(), report) };
  } finally {
    (await progress).stop();
    interrupt.dispose();
  }
}
