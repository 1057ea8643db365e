import pLimit from 'p-limit';
import { mergeAcrossPages } from '../core/findings/across-pages.js';
import { applyWaivers, isForOnePage, type Accepted, type Waiver } from '../core/findings/waivers.js';
import { RULES } from '../core/rules/index.js';
import type { Device } from '../core/profile/profile.js';
import type { BrowserPool } from '../engine/pool.js';
import { loadsOf } from './captures.js';
import { checkPage, type CheckedPage } from './check-page.js';
import { prepareEvidence } from './evidence.js';
import { localDay } from './local-day.js';
import type { FindingRecord, Manifest } from './manifest.js';
import { CONCURRENCY } from './pool-for.js';
import { summarise } from './summarise.js';
import { VERSION } from '../version.js';
import type { CheckPlan, CheckTools } from './plan.js';
import { Sweeper } from './sweep/sweeper.js';

/** Pages under way at once for each render under way: a page that is judged and written must not leave browsers idle. */
const PAGES_A_RENDER = 2;

/**
 * Renders every page on every device, runs the rules, and writes pictures, evidence and the manifest. What the run met
 * on the way — pages that fail, an interruption, a dead browser — is in the manifest, not thrown.
 * @param pool its browsers are let go as soon as they have nothing more to do; who made it waits until they are gone
 * @throws IsopticError exit status 4 when no browser can be started; 2 when the run folder can't be written at the end
 */
export async function check(plan: CheckPlan, tools: CheckTools, pool: BrowserPool): Promise<Manifest> {
  const startedAt = new Date();
  const start = performance.now();
  const sweeper = plan.sweep && new Sweeper(plan, plan.sweep, tools, plan.ruleSet ?? RULES);
  sweeper?.warmUp();
  let version: string;
  let pages: CheckedPage[];
  try {
    version = await pool.versionFor(plan.devices[0] ?? plan.sweep!.device);
    const checking = checkPages(plan, tools, pool, sweeper);
    // The browsers have been asked to open the first pages: there is nothing else to do until they have.
    if (plan.shots.full && plan.evidence !== 'none') prepareEvidence();
    pages = await checking;
  } finally {
    await sweeper?.close();
  }
  const renders = pages.flatMap((page) => page.renders);
  const devices = new Map(pages.flatMap((page) => page.devices.map((device) => [device.name, device])));
  const { findings, waivers } = mergedUnderWaivers(
    pages.flatMap((page) => page.findings),
    plan.waivers,
    startedAt,
  );
  const manifest: Manifest = {
    format: 'isoptic-run',
    version: 1,
    tool: { name: 'isoptic', version: VERSION },
    engine: { name: tools.engine.name, version },
    fonts: tools.fonts,
    startedAt: startedAt.toISOString(),
    durationMs: Math.round(performance.now() - start),
    interrupted: tools.signal.aborted,
    pages: pages.flatMap((page) => page.pages),
    profiles: [...devices.values()].map(profileRecord),
    renders,
    findings,
    layouts: pages.flatMap((page) => page.layouts),
    waivers,
    ...(sweeper && { sweep: pages.flatMap((page) => page.sweep ?? []) }),
    summary: summarise(renders, findings),
  };
  return manifest;
}

/** Checks the pages, a few at once, in the order of the plan. */
function checkPages(
  plan: CheckPlan,
  tools: CheckTools,
  pool: BrowserPool,
  sweeper: Sweeper | undefined,
): Promise<CheckedPage[]> {
  const rules = plan.ruleSet ?? RULES;
  let done = 0;
  const loads = plan.pages.reduce((sum, page) => sum + loadsOf(page, plan.preparations).length, 0);
  const total = loads * plan.devices.length;
  tools.onEvent({
    kind: 'planned',
    pages: plan.pages.length,
    profiles: plan.devices.length,
    loads: total,
  });
  // However many pages there are, a few are held.
  const limit = pLimit(PAGES_A_RENDER * CONCURRENCY);
  return Promise.all(
    plan.pages.map((page) =>
      limit(async () => {
        const swept = sweeper ? await sweeper.search(page) : null;
        const checked = await checkPage(page, plan, tools, pool, rules, swept, (device, records) => {
          const status = records.every((record) => record.status === 'ok') ? 'ok' : 'failed';
          const at = {
            page: page.id,
            profile: device.name,
            status,
            done: ++done,
            of: Math.max(done, total),
          } as const;
          tools.onEvent({ kind: 'rendered', ...at });
          if (done === total && !sweeper) void pool.close();
        });
        tools.onEvent({ kind: 'judged', page: page.id, findings: checked.findings });
        return checked;
      }),
    ),
  );
}

function profileRecord(device: Device): Manifest['profiles'][number] {
  return {
    name: device.name,
    width: device.width,
    height: device.height,
    dpr: device.dpr,
    class: device.class,
    screen: device.screen,
    insets: device.insets,
    density: device.density,
    orientation: device.orientation,
    scheme: device.conditions.scheme ?? 'light',
    platform: device.platform,
    touch: device.touchPoints > 0,
    mobile: device.mobile,
    userAgent: device.agent.userAgent,
  };
}

/**
 * The findings of all pages, those of a template put together, with what the user has accepted. A waiver for one page accepts
 * that page's part only, so it is applied first; the others accept what the user reads: the whole finding.
 * @param now its local date is what a waiver's end is held against
 */
export function mergedUnderWaivers(
  findings: readonly FindingRecord[],
  waivers: readonly Waiver[],
  now: Date,
): Pick<Manifest, 'findings' | 'waivers'> {
  const today = localDay(now);
  const ofPages = applyWaivers(findings, waivers.filter(isForOnePage), today);
  const merged = mergeAcrossPages(marked(findings, ofPages), ({ waived }) => JSON.stringify(waived));
  const others = waivers.filter((waiver) => !isForOnePage(waiver));
  const ofFindings = applyWaivers(merged, others, today);
  const uses = new Map([
    ...waivers.filter(isForOnePage).map((waiver, i) => [waiver, ofPages.uses[i]!] as const),
    ...others.map((waiver, i) => [waiver, ofFindings.uses[i]!] as const),
  ]);
  return {
    findings: marked(merged, ofFindings),
    waivers: waivers.map((waiver) => uses.get(waiver)!),
  };
}

function marked(findings: readonly FindingRecord[], { waived }: Accepted): FindingRecord[] {
  return findings.map((finding) => {
    const waiver = waived.get(finding.id);
    if (!waiver || finding.waived) return finding;
    const { reason, who, until } = waiver;
    return { ...finding, waived: { reason, who, until } };
  });
}
