import { join, relative } from 'node:path';
import { IsopticError, messageOf } from '../core/errors.js';
import type { Device } from '../core/profile/profile.js';
import { chromium } from '../engine/chromium/launch.js';
import type { ShotKinds } from '../engine/engine.js';
import { htmlReport } from '../report/html/write.js';
import { check } from '../run/check.js';
import type { Manifest } from '../run/manifest.js';
import { RunFolder } from '../run/run-folder.js';
import { openTargets, type TargetOptions } from '../site/targets.js';
import { interruptSignal } from './interrupt.js';
import { engineLog } from './output/log.js';
import { startProgress } from './output/progress.js';

export interface CheckRequest {
  readonly targets: readonly string[];
  readonly find: TargetOptions;
  readonly devices: readonly Device[];
  readonly shots: ShotKinds;
  readonly timeoutMs: number;
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
  const progress = startProgress(request.quiet);
  try {
    const folder = await RunFolder.create(request.out ?? defaultFolder(new Date()), request.replace);
    const manifest = await check(
      { pages: site.pages, devices: request.devices, shots: request.shots, timeoutMs: request.timeoutMs },
      {
        engine: chromium,
        browser: request.browser,
        fonts: request.fonts,
        folder,
        signal: interrupt.signal,
        log: engineLog(request.verbose),
        onProgress: (done, total, label) => progress.update(done, total, label),
      },
    );
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

/** `isoptic-runs/2026-11-23-083105-417`, by local time. */
function defaultFolder(now: Date): string {
  const two = (n: number, digits = 2) => String(n).padStart(digits, '0');
  const day = [now.getFullYear(), two(now.getMonth() + 1), two(now.getDate())].join('-');
  const time = two(now.getHours()) + two(now.getMinutes()) + two(now.getSeconds());
  return join('isoptic-runs', `${day}-${time}-${two(now.getMilliseconds(), 3)}`);
}
