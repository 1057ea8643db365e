import { availableParallelism } from 'node:os';
import { mergeAcrossPages } from '../core/findings/across-pages.js';
import { applyWaivers, type Waiver } from '../core/findings/waivers.js';
import type { Device } from '../core/profile/profile.js';
import { BrowserPool } from '../engine/pool.js';
import { loadsOf } from './captures.js';
import { checkPage } from './check-page.js';
import type { FindingRecord, Manifest, RenderRecord } from './manifest.js';
import { VERSION } from '../package-file.js';
import type { CheckPlan, CheckTools } from './plan.js';

/** A render waits a third of its time, for frames and until the network is quiet: others are worked on meanwhile. */
const RENDERS_A_CORE = 1.5;

/**
 * Renders every page on every device, runs the rules, and writes pictures, evidence and the manifest. What the run met
 * on the way — pages that fail, an interruption, a dead browser — is in the manifest, not thrown.
 * @throws IsopticError exit status 4 when no browser can be started; 2 when the run folder can't be written at the end
 */
export async function check(plan: CheckPlan, tools: CheckTools): Promise<Manifest> {
  const startedAt = new Date();
  const start = performance.now();
  const pool = new BrowserPool(tools.engine, {
    executable: tools.browser,
    fonts: tools.fonts,
    log: tools.log,
    concurrency: Math.ceil(RENDERS_A_CORE * availableParallelism()),
  });
  try {
    const { version } = await pool.browserFor({ device: plan.devices[0]! });
    let done = 0;
    const loads = plan.pages.flatMap((page) => loadsOf(page, plan.preparations));
    const total = loads.length * plan.devices.length;
    const pages = await Promise.all(
      plan.pages.map((page) =>
        checkPage(page, plan, tools, pool, (device) => {
          tools.onProgress(++done, total, `${page.id} on ${device.name}`);
        }),
      ),
    );
    const renders = pages.flatMap((page) => page.renders);
    const { findings, waivers } = withWaivers(
      mergeAcrossPages(pages.flatMap((page) => page.findings)),
      plan.waivers,
      startedAt,
    );
    const manifest: Manifest = {
      format: 'isoptic-run',
      version: 1,
      tool: { name: 'isoptic', version: VERSION },
      engine: { name: tools.engine.name, version },
      startedAt: startedAt.toISOString(),
      durationMs: Math.round(performance.now() - start),
      interrupted: tools.signal.aborted,
      pages: pages.flatMap((page) => page.pages),
      profiles: plan.devices.map(profileRecord),
      renders,
      findings,
      waivers,
      summary: summarise(renders, findings),
    };
    return manifest;
  } finally {
    await pool.close();
  }
}

function profileRecord(device: Device): Manifest['profiles'][number] {
  return {
    name: device.name,
    width: device.width,
    height: device.height,
    dpr: device.dpr,
    orientation: device.orientation,
    platform: device.platform,
    touch: device.touchPoints > 0,
    mobile: device.mobile,
    userAgent: device.agent.userAgent,
  };
}

/** @param now its local date is what a waiver's end is held against */
export function withWaivers(
  findings: readonly FindingRecord[],
  waivers: readonly Waiver[],
  now: Date,
): Pick<Manifest, 'findings' | 'waivers'> {
  const two = (n: number) => String(n).padStart(2, '0');
  const today = [now.getFullYear(), two(now.getMonth() + 1), two(now.getDate())].join('-');
  const { waived, uses } = applyWaivers(findings, waivers, today);
  return {
    waivers: uses,
    findings: findings.map((finding) => {
      const waiver = waived.get(finding.id);
      if (!waiver) return finding;
      const { reason, who, until } = waiver;
      return { ...finding, waived: { reason, who, until } };
    }),
  };
}

export function summarise(
  renders: readonly RenderRecord[],
  findings: readonly FindingRecord[],
): Manifest['summary'] {
  const count = (severity: string) =>
    findings.filter((finding) => finding.severity === severity && !finding.waived).length;
  return {
    renders: renders.length,
    failed: renders.filter((render) => render.status === 'failed').length,
    errors: count('error'),
    warnings: count('warning'),
    notices: count('notice'),
    waived: findings.filter((finding) => finding.waived).length,
  };
}
