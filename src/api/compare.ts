import { join } from 'node:path';
import { messageOf, IsopticError } from '../core/errors.js';
import { compareReport } from '../report/html/compare.js';
import { Baseline } from '../run/baseline/store.js';
import { compare } from '../run/compare/compare.js';
import { keptRun, type Kept } from '../run/compare/kept.js';
import type { ProfilePair } from '../run/compare/pairs.js';
import type { Comparison } from '../run/compare/record.js';
import type { CompareScope } from '../run/compare/settings.js';
import { RunFolder } from '../run/run-folder.js';
import { RUNS_FOLDER } from '../run/find-runs.js';
import { openTargets } from '../site/targets.js';
import { runCheck, stampOf, type CheckRequest, type RequestTools } from './run-check.js';

/** One of two things that are compared: a run that is there, the baseline, or pages that are rendered now. */
export type Compared =
  | { readonly run: string }
  | { readonly baseline: string }
  | { readonly render: Omit<CheckRequest, 'out' | 'replace'>; readonly name: string };

export interface CompareRequest {
  readonly a: Compared;
  readonly b: Compared;
  /** One profile of each, where profiles are compared and not runs. */
  readonly profiles: ProfilePair | null;
  readonly scopes: readonly CompareScope[];
  readonly pixels: boolean;
  readonly out: string | undefined;
  readonly replace: boolean;
}

export interface CompareTools extends Omit<RequestTools, 'onEvent'> {
  readonly onEvent: (
    event:
      | Parameters<RequestTools['onEvent']>[0]
      | { readonly kind: 'compared'; readonly page: string; readonly done: number; readonly of: number },
  ) => void;
}

export interface CompareResult {
  readonly comparison: Comparison;
  readonly folder: string;
  readonly report: string;
}

/**
 * From two things to what differs between them, written to a folder with its report.
 * @throws IsopticError for runs, targets and folders that can't be used
 */
export async function runCompare(request: CompareRequest, tools: CompareTools): Promise<CompareResult> {
  const folder = await RunFolder.create(
    request.out ?? join(RUNS_FOLDER, `${stampOf(new Date())}-compare`),
    request.replace,
  );
  try {
    const second = await readied(request.b, join(folder.path, 'b'), tools);
    const a = await keptOf(request.a, join(folder.path, 'a'), tools);
    const b = await second();
    const { comparison, places } = await compare(a, b, {
      ...request,
      folder,
      signal: tools.signal,
      onCompared: (done, of, page) => tools.onEvent({ kind: 'compared', page, done, of }),
    });
    await folder.useRoom();
    await folder.writeWhole('compare.html', await compareReport({ ...comparison, places }));
    await folder.writeWhole('compare.json', `${JSON.stringify(comparison, null, 2)}\n`);
    return { comparison, folder: folder.path, report: join(folder.path, 'compare.html') };
  } catch (error) {
    if (error instanceof IsopticError) throw error;
    throw new IsopticError(
      'out-unwritable',
      `${folder.path}: the comparison could not be written to its end (${messageOf(error)}).`,
      'Make room on the disk, or name another folder with --out.',
    );
  } finally {
    await folder.useRoom();
  }
}

async function keptOf(what: Compared, out: string, tools: CompareTools): Promise<Kept> {
  if ('run' in what) return keptRun(what.run);
  if ('baseline' in what) return (await Baseline.open(what.baseline)).kept();
  const { folder } = await runCheck({ ...what.render, out, replace: true }, tools);
  return { ...(await keptRun(folder)), name: what.name };
}

/** The same, later: that it can't be used is told now, before anything else is rendered. */
async function readied(what: Compared, out: string, tools: CompareTools): Promise<() => Promise<Kept>> {
  if ('render' in what) {
    await (await openTargets(what.render.targets, what.render.find)).close();
    return () => keptOf(what, out, tools);
  }
  const kept = await keptOf(what, out, tools);
  return () => Promise.resolve(kept);
}
