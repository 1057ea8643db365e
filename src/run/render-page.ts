import { NO_DELIVERY } from '../core/delivery/delivery.js';
import { messageOf } from '../core/errors.js';
import type { Cause } from '../core/cause/cause.js';
import { Judge, type JudgedRender } from '../core/findings/judge.js';
import { selectorsIn } from '../core/findings/settings.js';
import type { LayoutSnapshot } from '../core/layout/snapshot.js';
import { SnapshotView } from '../core/layout/view.js';
import type { Device } from '../core/profile/profile.js';
import type { Rule } from '../core/rules/rule.js';
import type { RenderView } from '../core/sightings/sighting.js';
import type { RenderOutcome } from '../engine/job.js';
import { failed, type BrowserPool } from '../engine/pool.js';
import { stopwatch } from '../engine/stopwatch.js';
import type { SitePage } from '../site/targets.js';
import { isFor, loadsOf, type CapturedPage, type PageLoad } from './captures.js';
import { CauseFinder } from './cause-finder.js';
import { writeLayout } from './layout-file.js';
import type { RenderRecord } from './manifest.js';
import { takeLooks } from './looks.js';
import { takeScreens } from './screens.js';
import { fontNotes, redirectNotes, variantNotes } from './notes.js';
import type { CheckPlan, CheckTools } from './plan.js';
import { writeCapture } from './write-capture.js';

/** A page and its states as they were rendered on every device, in the order of the plan. */
export interface RenderedPage {
  /** The page and its states. */
  readonly entries: readonly CapturedPage[];
  readonly renders: RenderRecord[];
  readonly judged: readonly JudgedRender[];
  /** By the key of the defect. */
  readonly causes: ReadonlyMap<string, Cause>;
  readonly screens: ReadonlyMap<string, Buffer>;
}

/** Told of each load as it ends. */
export type OnRendered = (device: Device, records: readonly RenderRecord[]) => void;

/** Renders one page and its states on every device and writes their pictures. What a page does wrong is in its records. */
export async function renderPage(
  page: SitePage,
  plan: CheckPlan,
  tools: CheckTools,
  pool: BrowserPool,
  rules: readonly Rule[],
  onRendered: OnRendered,
): Promise<RenderedPage> {
  const loads = loadsOf(page, plan.preparations);
  const entries = loads.flatMap((load) => load.captured);
  const work = new PageWork(page, plan, tools, pool, rules, entries);
  const rendered = await Promise.all(
    plan.devices.flatMap((device, place) =>
      loads.map(async (load) => {
        const records = await work.renderOn(device, place, load);
        onRendered(device, records);
        return records;
      }),
    ),
  );
  const order = placesOf(entries, plan.devices);
  const renders = rendered.flat().sort((a, b) => order(a.page, a.profile) - order(b.page, b.profile));
  const placeOf = ({ render }: JudgedRender) => order(render.page, render.device.name);
  const judged = work.judged.sort((a, b) => placeOf(a) - placeOf(b));
  for (const render of renders) render.notes.push(...variantNotes(render, renders));
  return { entries, renders, judged, causes: work.causes(), screens: work.screens };
}

/** The renders of one page under way, with what they have come to so far. */
class PageWork {
  readonly judged: JudgedRender[] = [];
  /** Pictures of screens that were scrolled to, until the evidence is cut from them. */
  readonly screens = new Map<string, Buffer>();
  /** What is masked would show in them. */
  private readonly wantsScreens: boolean;
  private readonly essentials: readonly string[];
  private readonly judge: Judge;
  /** What is to be said of rules that threw. */
  private readonly failures = new Map<SnapshotView, readonly string[]>();
  private readonly finders: ReadonlyMap<string | null, CauseFinder>;
  /** A capture is looked at in the live page and again with all others; the work on its geometry is done once. */
  private readonly viewsOf = new WeakMap<LayoutSnapshot, SnapshotView>();

  constructor(
    private readonly page: SitePage,
    private readonly plan: CheckPlan,
    private readonly tools: CheckTools,
    private readonly pool: BrowserPool,
    rules: readonly Rule[],
    entries: readonly CapturedPage[],
  ) {
    this.essentials = plan.essentials
      .filter(({ pages }) => isFor(page.id, pages))
      .map(({ selector }) => selector);
    this.wantsScreens = plan.shots.full && plan.evidence !== 'none' && plan.alter.mask.length === 0;
    this.judge = new Judge(rules, plan.rules, (rule, { view }, error) => {
      this.failures.set(view, [
        ...(this.failures.get(view) ?? []),
        `the rule ${rule.meta.name} failed here: ${messageOf(error)}`,
      ]);
    });
    this.finders = new Map(
      entries.map(({ state }) => [state, new CauseFinder(this.judge, plan.devices.length)]),
    );
  }

  /** Of a defect that several states show, the first one tells the cause. */
  causes(): Map<string, Cause> {
    return new Map([...this.finders.values()].reverse().flatMap((finder) => [...finder.causes]));
  }

  async renderOn(device: Device, place: number, load: PageLoad): Promise<RenderRecord[]> {
    const { plan, tools } = this;
    const outcome = await this.outcomeOn(device, place, load);
    const records = await Promise.all(
      load.captured.map((entry) =>
        writeCapture(entry, device, outcome, plan.alter.mask, tools.folder, {
          withPreview: isLarge(plan),
          framed: plan.shots.framed ?? false,
        }),
      ),
    );
    for (const [i, record] of records.entries()) {
      const entry = load.captured[i]!;
      const capture = outcome.captures.find(({ state }) => state === entry.state);
      if (capture && record.status === 'ok') await this.add(entry, device, capture.snapshot, outcome, record);
    }
    return records;
  }

  private outcomeOn(device: Device, place: number, load: PageLoad): Promise<RenderOutcome> {
    const { page, plan, tools, pool, finders, essentials } = this;
    return (
      pool
        .render({
          url: page.url,
          device,
          shots: plan.shots,
          access: plan.access,
          preparations: load.preparations,
          alter: plan.alter,
          locate: [...essentials, ...selectorsIn(plan.rules)],
          investigate: async ({ state, snapshot }, probe) => {
            const render = {
              page: load.captured.find((entry) => entry.state === state)?.id ?? page.id,
              device,
              view: this.viewOf(snapshot),
              httpStatus: null,
              delivery: NO_DELIVERY,
              essentials: [],
            };
            await takeLooks(this.judge, render, probe);
            if (this.wantsScreens) await takeScreens(this.judge, render, probe, this.screens);
            await finders.get(state)?.investigate(place, { ...render, page: page.id }, probe);
          },
          timeoutMs: plan.timeoutMs,
          signal: tools.signal,
        })
        .finally(() => {
          for (const { state } of load.captured) finders.get(state)?.pass(place);
        })
        // Anything that the engine throws beside a dead browser is a defect of ours, and still must not cost the other renders.
        .catch((error: unknown): RenderOutcome => failed('render-failed', messageOf(error)))
    );
  }

  private async add(
    entry: CapturedPage,
    device: Device,
    snapshot: LayoutSnapshot,
    { httpStatus, delivery, finalUrl }: RenderOutcome,
    record: RenderRecord,
  ): Promise<void> {
    const { page, plan, tools } = this;
    const view = this.viewOf(snapshot);
    const essentials = entry.state === null ? this.essentials : [];
    const render: RenderView = { page: entry.id, device, view, httpStatus, delivery, essentials };
    const clock = stopwatch();
    // While browsers are busy with other renders, not when all of them are through.
    this.judged.push({ render, reported: this.judge.judge(render) });
    record.timings.analyseMs = clock();
    record.notes.push(...(this.failures.get(view) ?? []));
    if (plan.keepLayouts) {
      await writeLayout(tools.folder, render, tools.redact).catch((error: unknown) =>
        record.notes.push(`its layout could not be written: ${messageOf(error)}`),
      );
    }
    record.notes.push(...redirectNotes(page.url, finalUrl));
    if (tools.fonts === 'platform') record.notes.push(...fontNotes(view, device));
  }

  private viewOf(snapshot: LayoutSnapshot): SnapshotView {
    const view = this.viewsOf.get(snapshot) ?? new SnapshotView(snapshot);
    this.viewsOf.set(snapshot, view);
    return view;
  }
}

/** From so many renders on, a browser that shows all of them needs smaller pictures to begin with. */
const LARGE = 60;

function isLarge({ pages, devices }: CheckPlan): boolean {
  return pages.length * devices.length > LARGE;
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
