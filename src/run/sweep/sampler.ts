import { Judge, keyOf } from '../../core/findings/judge.js';
import { selectorsIn } from '../../core/findings/settings.js';
import { NO_DELIVERY } from '../../core/delivery/delivery.js';
import { severityOf } from '../../core/rules/rule.js';
import { gravest } from '../../core/sightings/sighting.js';
import { sceneOf } from '../../core/layout/scene.js';
import { SnapshotView } from '../../core/layout/view.js';
import type { Device } from '../../core/profile/profile.js';
import type { Sample, Sight } from '../../core/sweep/sample.js';
import { traceOf } from '../../core/sweep/trace.js';
import type { PageSession } from '../../engine/page-session.js';
import type { LookMemory } from '../look-memory.js';
import { takeLooks } from '../looks.js';
import type { CheckPlan } from '../plan.js';
import type { SweepRange } from './plan.js';

/** A copy that is open, and how its elements are numbered. */
export interface Copy {
  readonly page: PageSession;
  readonly numbersOf: (view: SnapshotView) => Int32Array;
  /** What was seen in pixels at other sizes, in whichever copy. */
  readonly looks: LookMemory;
}

/** Reads open copies of one page, and what the rules see in them. */
export class Sampler {
  private readonly judge: Judge;
  private readonly locate: readonly string[];
  /** The numbers of containers that are measured at each size. */
  private readonly measured = new Set<number>();
  /** Texts of forms, each once: there are few, and a search keeps one a size. */
  private readonly forms = new Map<string, string>();

  constructor(
    private readonly page: string,
    settings: CheckPlan['rules'],
    private readonly axis: SweepRange['axis'],
    rules: ConstructorParameters<typeof Judge>[0],
  ) {
    // A rule that throws sees nothing at that size; the check of the page says so.
    this.judge = new Judge(rules, settings, () => undefined);
    this.locate = selectorsIn(settings);
  }

  /** From now on, a container is measured at each size. */
  measure(container: number): void {
    this.measured.add(container);
  }

  /** What is seen in a page that is at rest at a size. */
  async sampleOf(copy: Copy, device: Device, size: number): Promise<Sample> {
    const snapshot = await copy.page.collect({ locate: this.locate });
    const view = new SnapshotView(snapshot);
    const numbers = copy.numbersOf(view);
    const render = {
      page: this.page,
      device,
      view,
      httpStatus: null,
      delivery: NO_DELIVERY,
      essentials: [],
    };
    const probe = copy.page.probe();
    await takeLooks(this.judge, render, probe, copy.looks.at({ view, size, numbers }));
    await probe.close();
    const seen = new Map<string, Sight>();
    for (const { rule, sighting } of this.judge.judge(render)) {
      const key = keyOf(rule, sighting);
      const before = seen.get(key);
      const px = Math.max(before?.px ?? 0, sighting.by?.px ?? 0);
      const severities = [severityOf(rule, sighting), ...(before ? [before.severity] : [])];
      seen.set(key, { px: sighting.by ? px : null, severity: gravest(severities)! });
    }
    const trace = traceOf(sceneOf(view), numbers, this.axis);
    const form = this.forms.get(trace.form) ?? trace.form;
    this.forms.set(form, form);
    return { width: size, form, trace, seen, containers: this.containersIn(view, numbers) };
  }

  private containersIn(view: SnapshotView, numbers: Int32Array): Sample['containers'] {
    const found = new Map<number, { inline: number; fontSize: number }>();
    if (this.measured.size === 0) return found;
    for (let i = 0; i < view.count; i++) {
      if (!this.measured.has(numbers[i]!) || !view.isRendered(i)) continue;
      const { width, height } = view.contentBox(i);
      const isVertical = view.style(i, 'writing-mode').startsWith('vertical');
      const fontSize = Number.parseFloat(view.style(i, 'font-size'));
      found.set(numbers[i]!, { inline: isVertical ? height : width, fontSize });
    }
    return found;
  }
}
