import { NO_DELIVERY } from '../core/delivery/delivery.js';
import { messageOf } from '../core/errors.js';
import type { Finding } from '../core/findings/finding.js';
import { findingsOfPage } from '../core/findings/group.js';
import { selectorsIn } from '../core/findings/settings.js';
import { SnapshotView } from '../core/layout/view.js';
import type { Device } from '../core/profile/profile.js';
import { RULES } from '../core/rules/index.js';
import type { RenderView } from '../core/sightings/sighting.js';
import type { Capture, RenderOutcome } from '../engine/job.js';
import { failed, type BrowserPool } from '../engine/pool.js';
import type { SitePage } from '../site/targets.js';
import { isFor, loadsOf, type CapturedPage, type PageLoad } from './captures.js';
import { CauseFinder } from './cause-finder.js';
import type { CheckPlan, CheckTools } from './plan.js';
import { evidenceCrop } from './evidence.js';
import { findingRecord } from './finding-record.js';
import type { FindingRecord, Manifest, RenderRecord } from './manifest.js';
import { fontNotes, redirectNotes, variantNotes } from './notes.js';
import type { RunFolder } from './run-folder.js';
import { writeLayout } from './layout-file.js';
import { fileName, writeCapture } from './write-capture.js';

export interface CheckedPage {
  readonly pages: Manifest['pages'];
  readonly renders: RenderRecord[];
  readonly findings: FindingRecord[];
}

/** Renders one page and its states on every device and runs the rules over all of them. */
export async function checkPage(
  page: SitePage,
  plan: CheckPlan,
  tools: CheckTools,
  pool: BrowserPool,
  onDone: (device: Device) => void,
): Promise<CheckedPage> {
  const views: RenderView[] = [];
  const titles = new Map<string, string>();
  const essentials = plan.essentials
    .filter(({ pages }) => isFor(page.id, pages))
    .map(({ selector }) => selector);
  const loads = loadsOf(page, plan.preparations);

  const entries = loads.flatMap((load) => load.captured);
  const finders = new Map(
    entries.map(({ state }) => [state, new CauseFinder(RULES, plan.rules, plan.devices.length)]),
  );
  // A capture is looked at in the live page and again with all others; the work on its geometry is done once.
  const viewsOf = new Map<Capture, SnapshotView>();
  const viewOf = (capture: Capture): SnapshotView => {
    const view = viewsOf.get(capture) ?? new SnapshotView(capture.snapshot);
    viewsOf.set(capture, view);
    return view;
  };

  const renderOn = async (device: Device, place: number, load: PageLoad): Promise<RenderRecord[]> => {
    const outcome = await pool
      .render({
        url: page.url,
        device,
        shots: plan.shots,
        access: plan.access,
        preparations: load.preparations,
        alter: plan.alter,
        locate: [...essentials, ...selectorsIn(plan.rules)],
        investigate: async (capture, probe) =>
          finders.get(capture.state)?.investigate(
            place,
            {
              page: page.id,
              device,
              view: viewOf(capture),
              httpStatus: null,
              delivery: NO_DELIVERY,
              essentials: [],
            },
            probe,
          ),
        timeoutMs: plan.timeoutMs,
        signal: tools.signal,
      })
      .finally(() => {
        for (const { state } of load.captured) finders.get(state)?.pass(place);
      })
      // Anything that the engine throws beside a dead browser is a defect of ours, and still must not cost the other renders.
      .catch((error: unknown): RenderOutcome => failed('render-failed', messageOf(error)));
    const records = await Promise.all(
      load.captured.map((entry) => writeCapture(entry, device, outcome, plan.alter.mask, tools.folder)),
    );
    for (const [i, record] of records.entries()) {
      const entry = load.captured[i]!;
      const capture = outcome.captures.find(({ state }) => state === entry.state);
      if (!capture || record.status !== 'ok') continue;
      if (!titles.has(entry.id)) titles.set(entry.id, capture.snapshot.title);
      const view = viewOf(capture);
      const { httpStatus, delivery } = outcome;
      views.push({
        page: entry.id,
        device,
        view,
        httpStatus,
        delivery,
        essentials: entry.state === null ? essentials : [],
      });
      if (plan.keepLayouts) await writeLayout(tools.folder, views.at(-1)!, tools.redact);
      record.notes.push(...redirectNotes(page.url, outcome.finalUrl));
      if (tools.fonts === 'platform') record.notes.push(...fontNotes(view, device));
    }
    onDone(device);
    return records;
  };
  const rendered = await Promise.all(
    plan.devices.flatMap((device, place) => loads.map((load) => renderOn(device, place, load))),
  );
  const order = placesOf(entries, plan.devices);
  const renders = rendered.flat().sort((a, b) => order(a.page, a.profile) - order(b.page, b.profile));
  views.sort((a, b) => order(a.page, a.device.name) - order(b.page, b.device.name));
  for (const render of renders) render.notes.push(...variantNotes(render, renders));

  const before = performance.now();
  // Of a defect that several states show, the first one tells the cause.
  const causes = new Map([...finders.values()].reverse().flatMap((finder) => [...finder.causes]));
  const findings = findingsOfPage(page.id, views, RULES, { causes, settings: plan.rules });
  const analyseMs = Math.round(((performance.now() - before) / Math.max(1, views.length)) * 10) / 10;
  for (const render of renders) if (render.status === 'ok') render.timings.analyseMs = analyseMs;
  return {
    pages: entries.map(({ id, source, state }) => ({
      id,
      source,
      title: titles.get(id) ?? titles.get(page.id) ?? '',
      ...(state !== null && { state, of: page.id }),
    })),
    renders,
    findings: await Promise.all(findings.map((finding) => withEvidence(finding, renders, tools.folder))),
  };
}

/** Page by page and device by device, whichever came back first. */
function placesOf(
  entries: readonly CapturedPage[],
  devices: readonly Device[],
): (page: string, device: string) => number {
  const pages = new Map(entries.map(({ id }, i) => [id, i]));
  const profiles = new Map(devices.map(({ name }, i) => [name, i]));
  return (page, device) => pages.get(page)! * devices.length + profiles.get(device)!;
}

async function withEvidence(
  finding: Finding,
  renders: readonly RenderRecord[],
  folder: RunFolder,
): Promise<FindingRecord> {
  const seen = await Promise.all(
    finding.seen.map(async (sighting) => {
      const { page, profile, rect } = sighting;
      const shot = renders.find((render) => render.profile === profile && render.page === page)?.shots.full;
      const crop = shot === undefined ? null : await evidenceCrop(folder.full(shot), rect).catch(() => null);
      if (!crop) return sighting;
      const state = page === finding.page ? '' : `-${page}`;
      const path = `evidence/${finding.id}${state}-${fileName(profile)}.png`;
      return { ...sighting, evidence: await folder.write(path, crop) };
    }),
  );
  return findingRecord(finding, seen);
}
