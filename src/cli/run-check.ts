import { relative } from 'node:path';
import type { CompareTools } from '../api/compare.js';
import { runCheck as runRequest, type CheckRequest } from '../api/run-check.js';
import { count } from '../core/geometry/format.js';
import type { Manifest } from '../run/manifest.js';
import { interruptSignal } from './interrupt.js';
import { engineLog } from './output/log.js';
import { startProgress } from './output/progress.js';
import type { SummaryOptions } from './output/summary.js';

/** What is printed at the end is loaded while pages are, once a first one is there: no page is to wait for it. */
const loadSummary = () => import('./output/summary.js');

/** @see summaryText */
export async function summaryOf(
  { manifest, reportPath }: ShownResult,
  options: SummaryOptions,
): Promise<string> {
  const { summaryText } = await loadSummary();
  return summaryText(manifest, reportPath, options);
}

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
export async function runCheck(request: CheckRequest, how: Showing): Promise<ShownResult> {
  const { manifest, report } = await showing(how, (tools) => runRequest(request, tools));
  return { manifest, reportPath: relative(process.cwd(), report) };
}

/** Does something long in the terminal: with progress, notes, the log, and Ctrl-C. */
export async function showing<T>(
  { quiet, verbose }: Showing,
  work: (tools: CompareTools) => Promise<T>,
): Promise<T> {
  const interrupt = interruptSignal();
  const progress = startProgress(quiet);
  try {
    return await work({
      signal: interrupt.signal,
      log: await engineLog(verbose),
      onEvent: (event) => {
        if (event.kind === 'found' && !quiet)
          for (const note of event.notes) process.stderr.write(`Note: ${note}.\n`);
        if (event.kind === 'rendered') loadSummary().catch(() => undefined);
        const line = progressLine(event);
        if (line !== null) void progress.then((shown) => shown.update(line));
      },
    });
  } finally {
    (await progress).stop();
    interrupt.dispose();
  }
}

/** What is done now, in a line; null where the line before is still true. */
function progressLine(event: Parameters<CompareTools['onEvent']>[0]): string | null {
  switch (event.kind) {
    case 'found':
      return `${count(event.pages.length, 'page')} found, starting the browser`;
    case 'planned':
      return `0 of ${event.loads}  ${count(event.pages, 'page')} on ${count(event.profiles, 'profile')}`;
    case 'rendered':
      return `${event.done} of ${event.of}  ${event.page} on ${event.profile}`;
    case 'filmed':
      return `${event.page}: picture ${event.done} of ${event.of}`;
    case 'compared':
      return `${event.done} of ${event.of} compared  ${event.page}`;
    case 'looked':
      return `${event.page}: ${event.layouts} layouts looked at`;
    default:
      return null;
  }
}
