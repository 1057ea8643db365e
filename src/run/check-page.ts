import { layoutsOf } from '../core/compare/layouts.js';
import { keyOf, type JudgedRender } from '../core/findings/judge.js';
import { findingsOf } from '../core/findings/group.js';
import type { Cause } from '../core/cause/cause.js';
import type { Device } from '../core/profile/profile.js';
import type { Rule } from '../core/rules/rule.js';
import type { BrowserPool } from '../engine/pool.js';
import type { SitePage } from '../site/targets.js';
import { loadsOf } from './captures.js';
import { withEvidence } from './evidence.js';
import type { FindingRecord, Manifest, RenderRecord } from './manifest.js';
import type { CheckPlan, CheckTools } from './plan.js';
import { renderKey } from './render-key.js';
import { writePlaces } from './places-file.js';
import type { RunFolder } from './run-folder.js';
import { renderPage, type OnRendered, type RenderedPage } from './render-page.js';
import { withConditions, withUnguarded } from './sweep/containing.js';
import type { PageSweep, SweepRecord } from './sweep/search-page.js';
import { deviceAt } from './sweep/plan.js';

export interface CheckedPage {
  readonly pages: Manifest['pages'];
  readonly renders: RenderRecord[];
  readonly findings: FindingRecord[];
  /** Those of the plan, and those that show what a search over sizes found. */
  readonly devices: readonly Device[];
  /** Which devices show one layout, by page and state. */
  readonly layouts: NonNullable<Manifest['layouts']>;
  /** What a search over its sizes found. */
  readonly sweep: SweepRecord | null;
}

/**
 * Renders one page and its states on every device and runs the rules over all of them. Nothing of it is held on to after that.
 * @param sweep what a search over its sizes found: what no device of the plan shows is rendered at sizes that do
 */
export async function checkPage(
  page: SitePage,
  plan: CheckPlan,
  tools: CheckTools,
  pool: BrowserPool,
  rules: readonly Rule[],
  sweep: PageSweep | null,
  onRendered: OnRendered,
): Promise<CheckedPage> {
  const renderOn = (devices: readonly Device[]) =>
    renderPage(page, { ...plan, devices }, tools, pool, rules, onRendered);
  const parts = plan.devices.length > 0 ? [await renderOn(plan.devices)] : [];
  const shown = sweep && plan.sweep ? sizesToShow(sweep, parts) : [];
  const added = shown.map((size) => deviceAt(plan.sweep!, size));
  if (added.length > 0) parts.push(await renderOn(added));
  const devices = [...plan.devices, ...added];
  const entries = loadsOf(page, plan.preparations).flatMap((load) => load.captured);
  const judged = parts.flatMap((part) => part.judged);
  const renders = parts.flatMap((part) => part.renders);
  // A script may give another title on every device: that of the first one in the plan, whichever came back first.
  const titles = new Map(
    judged.map(({ render: { page: at, view } }) => [at, view.snapshot.title] as const).reverse(),
  );
  const causes = mapOf<Cause>(parts.map((part) => part.causes));
  const findings = findingsOf(page.id, judged, {
    causes,
    ...(sweep && { swept: { spans: sweep.spans, to: sweep.record.to } }),
  });
  const [written, layouts] = await Promise.all([
    withEvidence(findings, renders, devices, plan.evidence, tools.folder, {
      screens: mapOf<Buffer>(parts.map((part) => part.screens)),
      scales: new Map(
        judged.map(({ render: { page: at, device, view } }) => [
          renderKey(at, device.name),
          device.dpr * view.snapshot.viewport.scale,
        ]),
      ),
    }),
    // While pictures are decoded, on other threads.
    placedLayouts(entries, judged, tools.folder),
  ]);
  return {
    pages: entries.map(({ id, source, state }) => ({
      id,
      source,
      title: titles.get(id) ?? titles.get(page.id) ?? '',
      ...(state !== null && { state, of: page.id }),
    })),
    renders,
    devices,
    findings: sweep ? written.map((finding) => withConditions(finding, page.id, sweep)) : written,
    layouts,
    sweep: sweep && withUnguarded(sweep.record, page.id, written),
  };
}

/** Writes where things are on each render, and tells which renders show one layout. */
async function placedLayouts(
  entries: readonly { readonly id: string }[],
  judged: readonly JudgedRender[],
  folder: RunFolder,
): Promise<CheckedPage['layouts']> {
  await Promise.all(
    entries.map(({ id }) => {
      const views = judged.map(({ render }) => render).filter((render) => render.page === id);
      // Without them the report scrolls by share of the page.
      return writePlaces(folder, id, views).catch(() => undefined);
    }),
  );
  return entries.flatMap(({ id }) => layoutsIn(id, judged));
}

/** Of one render there is nothing to tell. */
function layoutsIn(page: string, judged: readonly JudgedRender[]): CheckedPage['layouts'] {
  const renders = judged
    .filter(({ render }) => render.page === page)
    .map(({ render: { device, view } }) => ({ name: device.name, view }));
  if (renders.length < 2) return [];
  const groups = layoutsOf(renders).map(({ names, apart, differences }) => ({
    profiles: [...names],
    apart: [...apart],
    differences,
  }));
  return [{ page, groups }];
}

/** The sizes that show what the devices of the plan don't. */
function sizesToShow(sweep: PageSweep, parts: readonly RenderedPage[]): readonly number[] {
  const seen = new Set(parts.flatMap(({ judged }) => judged.flatMap(keysIn)));
  return sweep.shownFor((key) => !seen.has(key));
}

function keysIn({ reported }: JudgedRender): string[] {
  return reported.map(({ rule, sighting }) => keyOf(rule, sighting));
}

/** The first that has a key says what it stands for. */
function mapOf<T>(maps: readonly ReadonlyMap<string, T>[]): Map<string, T> {
  return new Map([...maps].reverse().flatMap((map) => [...map]));
}
