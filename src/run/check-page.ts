import { findingsOf } from '../core/findings/group.js';
import type { Rule } from '../core/rules/rule.js';
import type { BrowserPool } from '../engine/pool.js';
import type { SitePage } from '../site/targets.js';
import { withEvidence } from './evidence.js';
import type { FindingRecord, Manifest, RenderRecord } from './manifest.js';
import type { CheckPlan, CheckTools } from './plan.js';
import { renderKey } from './render-key.js';
import { writePlaces } from './places-file.js';
import { renderPage, type OnRendered } from './render-page.js';

export interface CheckedPage {
  readonly pages: Manifest['pages'];
  readonly renders: RenderRecord[];
  readonly findings: FindingRecord[];
}

/** Renders one page and its states on every device and runs the rules over all of them. Nothing of it is held on to after that. */
export async function checkPage(
  page: SitePage,
  plan: CheckPlan,
  tools: CheckTools,
  pool: BrowserPool,
  rules: readonly Rule[],
  onRendered: OnRendered,
): Promise<CheckedPage> {
  const { entries, renders, judged, titles, causes, screens } = await renderPage(
    page,
    plan,
    tools,
    pool,
    rules,
    onRendered,
  );
  const findings = findingsOf(page.id, judged, causes);
  for (const { id } of entries) {
    const views = judged.map(({ render }) => render).filter((render) => render.page === id);
    // Without them the report scrolls by share of the page.
    await writePlaces(tools.folder, id, views).catch(() => undefined);
  }
  return {
    pages: entries.map(({ id, source, state }) => ({
      id,
      source,
      title: titles.get(id) ?? titles.get(page.id) ?? '',
      ...(state !== null && { state, of: page.id }),
    })),
    renders,
    findings: await withEvidence(findings, renders, plan.devices, plan.evidence, tools.folder, {
      screens,
      scales: new Map(
        judged.map(({ render: { page: at, device, view } }) => [
          renderKey(at, device.name),
          device.dpr * view.snapshot.viewport.scale,
        ]),
      ),
    }),
  };
}
