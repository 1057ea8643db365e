import { availableParallelism } from 'node:os';
import sharp from 'sharp';
import { messageOf } from '../core/errors.js';
import type { Finding } from '../core/findings/finding.js';
import { fontSetOf } from '../core/fonts/font-sets.js';
import { standInsOf } from '../core/fonts/stand-ins.js';
import { findingsOfPage } from '../core/findings/group.js';
import { SnapshotView } from '../core/layout/view.js';
import type { Device } from '../core/profile/profile.js';
import { RULES } from '../core/rules/index.js';
import type { RenderView } from '../core/rules/rule.js';
import type { Engine, EngineLog, RenderOutcome, ShotKinds } from '../engine/engine.js';
import { BrowserPool, failed } from '../engine/pool.js';
import type { SitePage } from '../site/targets.js';
import { evidenceCrop } from './evidence.js';
import type { FindingRecord, Manifest, RenderRecord } from './manifest.js';
import { VERSION } from './package-file.js';
import type { RunFolder } from './run-folder.js';

export interface CheckPlan {
  readonly pages: readonly SitePage[];
  readonly devices: readonly Device[];
  readonly shots: ShotKinds;
  readonly timeoutMs: number;
}

export interface CheckTools {
  readonly engine: Engine;
  readonly browser: string | undefined;
  /** Whether text is laid out with each platform's fonts or with the machine's own. */
  readonly fonts: 'platform' | 'host';
  readonly folder: RunFolder;
  readonly signal: AbortSignal;
  readonly log: EngineLog;
  readonly onProgress: (done: number, total: number, label: string) => void;
}

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
    concurrency: Math.max(1, availableParallelism()),
  });
  try {
    const { version } = await pool.browserFor({ device: plan.devices[0]! });
    let done = 0;
    const total = plan.pages.length * plan.devices.length;
    const pages = await Promise.all(
      plan.pages.map((page) =>
        checkPage(page, plan, tools, pool, (device) => {
          tools.onProgress(++done, total, `${page.id} on ${device.name}`);
        }),
      ),
    );
    const renders = pages.flatMap((page) => page.renders);
    const findings = pages.flatMap((page) => page.findings);
    const manifest: Manifest = {
      format: 'isoptic-run',
      version: 1,
      tool: { name: 'isoptic', version: VERSION },
      engine: { name: tools.engine.name, version },
      startedAt: startedAt.toISOString(),
      durationMs: Math.round(performance.now() - start),
      interrupted: tools.signal.aborted,
      pages: pages.map(({ page, title }) => ({ id: page.id, source: page.source, title })),
      profiles: plan.devices.map(profileRecord),
      renders,
      findings,
      summary: summarise(renders, findings),
    };
    return manifest;
  } finally {
    await pool.close();
  }
}

interface CheckedPage {
  readonly page: SitePage;
  readonly title: string;
  readonly renders: RenderRecord[];
  readonly findings: FindingRecord[];
}

async function checkPage(
  page: SitePage,
  plan: CheckPlan,
  tools: CheckTools,
  pool: BrowserPool,
  onDone: (device: Device) => void,
): Promise<CheckedPage> {
  const views: RenderView[] = [];
  let title = '';
  const renders = await Promise.all(
    plan.devices.map(async (device): Promise<RenderRecord> => {
      const outcome = await pool
        .render({ url: page.url, device, shots: plan.shots, timeoutMs: plan.timeoutMs, signal: tools.signal })
        // Anything that the engine throws beside a dead browser is a defect of ours, and still must not cost the other renders.
        .catch((error: unknown): RenderOutcome => failed('render-failed', messageOf(error)));
      const record = await writeRender(page, device, outcome, tools.folder);
      if (outcome.status === 'ok' && record.status === 'ok') {
        title ||= outcome.snapshot.title;
        const view = new SnapshotView(outcome.snapshot);
        const { httpStatus, delivery } = outcome;
        views.push({ device, view, httpStatus, delivery });
        if (leftSite(page.url, outcome.finalUrl))
          record.notes.push(`redirected to another site, ${outcome.finalUrl!}`);
        if (tools.fonts === 'platform') record.notes.push(...fontNotes(view, device));
      }
      onDone(device);
      return record;
    }),
  );
  // In the order of the devices, whichever came back first.
  const order = new Map(plan.devices.map((device, i) => [device.name, i]));
  views.sort((a, b) => order.get(a.device.name)! - order.get(b.device.name)!);

  for (const render of renders) render.notes.push(...variantNotes(render, renders));

  const before = performance.now();
  const findings = findingsOfPage(page.id, views, RULES);
  const analyseMs = Math.round(((performance.now() - before) / Math.max(1, views.length)) * 10) / 10;
  for (const render of renders) if (render.status === 'ok') render.timings.analyseMs = analyseMs;
  return {
    page,
    title,
    renders,
    findings: await Promise.all(findings.map((finding) => withEvidence(finding, renders, tools.folder))),
  };
}

async function writeRender(
  page: SitePage,
  device: Device,
  outcome: RenderOutcome,
  folder: RunFolder,
): Promise<RenderRecord> {
  const record: RenderRecord = {
    page: page.id,
    profile: device.name,
    status: outcome.status,
    finalUrl: outcome.finalUrl,
    httpStatus: outcome.httpStatus,
    error: outcome.status === 'failed' ? outcome.error : null,
    document: outcome.status === 'ok' ? outcome.snapshot.document : null,
    timings: outcome.timings,
    shots: {},
    notes: [...outcome.notes],
    delivery: structuredClone(outcome.delivery) as RenderRecord['delivery'],
  };
  if (outcome.status === 'failed') return record;
  try {
    for (const kind of ['fold', 'full'] as const) {
      const png = outcome.shots[kind];
      if (!png) continue;
      const path = `shots/${page.id}/${fileName(device.name)}.${kind}.png`;
      record.shots[kind] = await folder.write(path, await packed(png));
    }
  } catch (error) {
    return { ...record, status: 'failed', error: { code: 'shot-unwritable', message: messageOf(error) } };
  }
  return record;
}

/** The browser's fast encoder writes large files; the same pixels again, packed, off the main thread. */
function packed(png: Buffer): Promise<Buffer> {
  return sharp(png).png({ compressionLevel: 4 }).toBuffer();
}

/** A profile's name as a file's: a colon is not allowed everywhere. */
function fileName(profile: string): string {
  return profile.replaceAll(':', '-');
}

async function withEvidence(
  finding: Finding,
  renders: readonly RenderRecord[],
  folder: RunFolder,
): Promise<FindingRecord> {
  const seen = await Promise.all(
    finding.seen.map(async (sighting) => {
      const shot = renders.find((render) => render.profile === sighting.profile)?.shots.full;
      const crop =
        shot === undefined ? null : await evidenceCrop(folder.full(shot), sighting.rect).catch(() => null);
      if (!crop) return sighting;
      const path = `evidence/${finding.id}-${fileName(sighting.profile)}.png`;
      return { ...sighting, evidence: await folder.write(path, crop) };
    }),
  );
  return { ...finding, related: [...finding.related], seen };
}

/** Where a profile was served something else than the first one was: told, since it is often meant. */
function variantNotes(render: RenderRecord, all: readonly RenderRecord[]): string[] {
  const first = all.find((other) => other.status === 'ok');
  if (!first || render.status !== 'ok' || render === first) return [];
  const address = (url: string | null) => url?.replace(/[?#].*$/s, '');
  if (address(render.finalUrl) !== address(first.finalUrl)) {
    return [`was led to another address than ${first.profile}: ${address(render.finalUrl) ?? ''}`];
  }
  const { structure } = render.delivery;
  const differs =
    structure !== null && first.delivery.structure !== null && structure !== first.delivery.structure;
  return differs ? [`was served another document than ${first.profile}`] : [];
}

/** Whether a page ended at another origin than it was asked from. */
function leftSite(asked: string, ended: string | null): boolean {
  return ended !== null && URL.canParse(ended) && new URL(ended).origin !== new URL(asked).origin;
}

/** Families that were not laid out as the device would: judgements on overflow lean on them. */
function fontNotes(view: SnapshotView, device: Device): string[] {
  return standInsOf(view, fontSetOf(device.platform)).map(({ family, kind, font }) =>
    kind === 'device'
      ? `${family}: laid out with a stand-in, ${font ?? 'the nearest font'}`
      : `${family}: not on the page nor on the device, laid out with a stand-in`,
  );
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

function summarise(
  renders: readonly RenderRecord[],
  findings: readonly FindingRecord[],
): Manifest['summary'] {
  const count = (severity: string) => findings.filter((finding) => finding.severity === severity).length;
  return {
    renders: renders.length,
    failed: renders.filter((render) => render.status === 'failed').length,
    errors: count('error'),
    warnings: count('warning'),
    notices: count('notice'),
  };
}
