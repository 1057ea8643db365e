import { join, relative } from 'node:path';
import { IsopticError, messageOf } from '../core/errors.js';
import { DEFAULT_ENGINE } from '../engine/engines.js';
import type { Access } from '../engine/access.js';
import type { EngineLog } from '../engine/engine.js';
import { htmlReport } from '../report/html/write.js';
import { check } from '../run/check.js';
import type { CheckPlan, Redact } from '../run/plan.js';
import type { Manifest } from '../run/manifest.js';
import { RunFolder } from '../run/run-folder.js';
import { signedInState, type SignIn, type SignInTools } from '../run/sign-in.js';
import { openTargets, type TargetOptions } from '../site/targets.js';
import type { Secrets } from './config/secrets.js';
import { interruptSignal } from './interrupt.js';
import { engineLog } from './output/log.js';
import { startProgress } from './output/progress.js';

/** A check as the user asked for it: its pages still to be found, its access still to be signed in. */
export interface CheckRequest extends Omit<CheckPlan, 'pages'> {
  readonly targets: readonly string[];
  readonly find: TargetOptions;
  readonly signIn: SignIn | null;
  readonly signInAgain: boolean;
  /** What must not be written anywhere. */
  readonly secrets: Secrets;
  readonly out: string | undefined;
  readonly replace: boolean;
  readonly browser: string | undefined;
  readonly fonts: 'platform' | 'host';
  readonly quiet: boolean;
  readonly verbose: boolean;
}

export interface CheckResult {
  readonly manifest: Manifest;
  /** The report's path as the user would write it from the working folder. */
  readonly reportPath: string;
}

/** From what the user asked for to a complete run folder: pages, check, report, and the manifest last. */
export async function runCheck(request: CheckRequest): Promise<CheckResult> {
  const site = await openTargets(request.targets, request.find);
  const interrupt = interruptSignal();
  if (!request.quiet) for (const note of site.notes) process.stderr.write(`Note: ${note}.\n`);
  const progress = await startProgress(request.quiet);
  const engineLogger = engineLog(request.verbose);
  try {
    const folder = await RunFolder.create(request.out ?? defaultFolder(new Date()), request.replace);
    const { secrets } = request;
    const redact: Redact = (value) => secrets.redact(value);
    const log: EngineLog = (message, facts) => engineLogger(message, facts && redact(facts));
    const { signal } = interrupt;
    const tools = { engine: DEFAULT_ENGINE, browser: request.browser, folder, signal, log, redact };
    const access = await withSignIn(request, tools);
    const found = await check(
      { ...request, pages: site.pages, access },
      {
        ...tools,
        fonts: request.fonts,
        onProgress: (done, total, label) => progress.update(done, total, label),
      },
    );
    const manifest = redact(found);
    try {
      // A report that can't be written must not cost the manifest, which says where everything is.
      const report = htmlReport(manifest).then((html) => folder.write('report.html', html));
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
    return { manifest, reportPath: relative(process.cwd(), join(folder.path, 'report.html')) };
  } finally {
    progress.stop();
    interrupt.dispose();
    await site.close();
  }
}

/** The access of a check with what a sign-in adds to it. */
async function withSignIn(
  { signIn, signInAgain, access, devices, timeoutMs, secrets }: CheckRequest,
  tools: Omit<SignInTools, 'device' | 'access' | 'timeoutMs'>,
): Promise<Access> {
  if (!signIn) return access;
  const state = await signedInState(signIn, signInAgain, {
    ...tools,
    device: devices[0]!,
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
  const two = (n: number, digits = 2) => String(n).padStart(digits, '0');
  const day = [now.getFullYear(), two(now.getMonth() + 1), two(now.getDate())].join('-');
  const time = two(now.getHours()) + two(now.getMinutes()) + two(now.getSeconds());
  return join('isoptic-runs', `${day}-${time}-${two(now.getMilliseconds(), 3)}`);
}
