import { join } from 'node:path';
import { IsopticError, messageOf } from '../core/errors.js';
import type { Access } from '../engine/access.js';
import type { Engine, EngineLog } from '../engine/engine.js';
import { DEFAULT_ENGINE } from '../engine/engines.js';
import { userCache } from '../engine/user-cache.js';
import type { htmlReport } from '../report/html/write.js';
import { heldAgainst, type Known } from '../run/against.js';
import { poolFor } from '../run/pool-for.js';
import { RUNS_FOLDER } from '../run/find-runs.js';
import { localDay, twoDigits } from '../run/local-day.js';
import type { Manifest } from '../run/manifest.js';
import type { CheckEvent, CheckPlan, Redact } from '../run/plan.js';
import { RunFolder } from '../run/run-folder.js';
import { signedInState, type SignIn, type SignInTools } from '../run/sign-in.js';
import { openTargets, type TargetOptions } from '../site/targets.js';

/** What must not be written anywhere. */
export interface Secrecy {
  add(...texts: readonly string[]): void;
  redact: Redact;
}

/** A check with its pages still to be found, its access still to be signed in. */
export interface CheckRequest extends Omit<CheckPlan, 'pages'> {
  readonly targets: readonly string[];
  readonly find: TargetOptions;
  readonly signIn: SignIn | null;
  readonly signInAgain: boolean;
  readonly secrets: Secrecy;
  readonly out: string | undefined;
  readonly replace: boolean;
  readonly browser: string | undefined;
  readonly fonts: 'platform' | 'host';
  /** Findings that were known before: the run and its report say which are new. */
  readonly against?: Known | undefined;
}

export interface RequestTools {
  readonly engine?: Engine;
  readonly signal: AbortSignal;
  readonly log: EngineLog;
  readonly onEvent: (event: CheckEvent | FoundEvent) => void;
}

/** The pages of the targets are known. */
export interface FoundEvent {
  readonly kind: 'found';
  readonly pages: readonly { readonly id: string; readonly source: string }[];
  /** Limits that were reached, links left out, folders that can't be used. */
  readonly notes: readonly string[];
}

export interface CheckResult {
  readonly manifest: Manifest;
  /** Path of the run folder, and of the report in it. */
  readonly folder: string;
  readonly report: string;
}

/**
 * From a request to a complete run folder: pages, check, report, and the manifest last.
 * @throws IsopticError for targets, access, browser or folder that can't be used
 */
export async function runCheck(request: CheckRequest, tools: RequestTools): Promise<CheckResult> {
  const { secrets, browser, fonts } = request;
  const engine = tools.engine ?? DEFAULT_ENGINE;
  const redact: Redact = (value) => secrets.redact(value);
  const log: EngineLog = (message, facts) => tools.log(message, facts && redact(facts));
  const pool = poolFor({ engine, browser, fonts, log });
  // Browsers take their time to start; the pages are looked for meanwhile, and what judges and tells of them is loaded, not before.
  await pool.warmUp(request.sweep ? [request.sweep.device] : request.devices);
  const judging = import('../run/check.js');
  judging.catch(() => undefined);
  let close = () => Promise.resolve();
  let folder: RunFolder | undefined;
  try {
    const site = await openTargets(request.targets, request.find);
    close = () => site.close();
    const pages = site.pages.map(({ id, source }) => ({ id, source }));
    const { note } = await userCache();
    tools.onEvent({ kind: 'found', pages, notes: [...(note === null ? [] : [note]), ...site.notes] });
    folder = await RunFolder.create(request.out ?? defaultFolder(new Date()), request.replace);
    const shared = { engine, browser, folder, signal: tools.signal, log, redact };
    const access = await accessFor(request, shared);
    const plan: CheckPlan = { ...request, pages: site.pages, access };
    const [{ check }, reports] = await Promise.all([judging, import('../report/html/write.js')]);
    const found = await check(plan, { ...shared, fonts, onEvent: tools.onEvent }, pool);
    const manifest = redact(request.against ? heldAgainst(found, request.against) : found);
    await writeEnd(folder, manifest, reports.htmlReport);
    return { manifest, folder: folder.path, report: join(folder.path, 'report.html') };
  } finally {
    await Promise.all([pool.close(), close(), folder?.useRoom()]);
  }
}

/** The report, then the manifest, which says where everything is. */
async function writeEnd(folder: RunFolder, manifest: Manifest, write: typeof htmlReport): Promise<void> {
  try {
    await folder.useRoom();
    // A report that can't be written must not cost the manifest.
    const report = write(manifest, { run: folder.path }).then((html) =>
      folder.writeWhole('report.html', html),
    );
    await report.catch(() => undefined);
    await folder.writeManifest(manifest);
    await report;
  } catch (error) {
    throw new IsopticError(
      'out-unwritable',
      `${folder.path}: the run could not be written to its end (${messageOf(error)}).`,
      'Make room on the disk, or name another folder with --out.',
    );
  }
}

/** The access of a check with what a sign-in adds to it. */
export async function accessFor(
  { signIn, signInAgain, access, devices, sweep, timeoutMs, secrets }: CheckRequest,
  tools: Omit<SignInTools, 'device' | 'access' | 'timeoutMs'>,
): Promise<Access> {
  if (!signIn) return access;
  const state = await signedInState(signIn, signInAgain, {
    ...tools,
    device: devices[0] ?? sweep!.device,
    access,
    timeoutMs,
  });
  secrets.add(...state.cookies.map(({ value }) => value).filter((value) => value.length >= MIN_TOKEN));
  for (const entries of Object.values(state.storage)) {
    secrets.add(...Object.values(entries).filter((value) => value.length >= MIN_TOKEN));
  }
  return { ...access, cookies: [...access.cookies, ...state.cookies], storage: state.storage };
}

/** A site keeps much in cookies and storage that is no secret: `light`, `de`. */
const MIN_TOKEN = 12;

/** `isoptic-runs/2026-11-23-083105-417`, by local time. */
function defaultFolder(now: Date): string {
  return join(RUNS_FOLDER, stampOf(now));
}

/** A moment as the name of a folder: `2026-11-23-083105-417`, by local time. */
export function stampOf(now: Date): string {
  const time = [now.getHours(), now.getMinutes(), now.getSeconds()].map(twoDigits).join('');
  const ms = String(now.getMilliseconds()).padStart(3, '0');
  return `${localDay(now)}-${time}-${ms}`;
}
