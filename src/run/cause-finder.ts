import type { Cause } from '../core/cause/cause.js';
import { suspectsOf, type Suspect } from '../core/cause/suspects.js';
import { judge, keyOf } from '../core/findings/judge.js';
import type { RuleSettings } from '../core/findings/settings.js';
import { SelectorWriter } from '../core/findings/selector.js';
import { SnapshotView } from '../core/layout/view.js';
import { capital } from '../core/rules/words.js';
import type { RenderView, Rule, Sighting } from '../core/rules/rule.js';
import type { Probe } from '../engine/probe.js';

/** What experiments on one render may take: a page with a hundred defects is not measured a thousand times. */
const BOUND_MS = 2_500;
/** Of a larger page each experiment would take seconds. */
const MOST_ELEMENTS = 15_000;

/** Finds out why the defects of one page are there, each on the first render that shows it. */
export class CauseFinder {
  /** By the key of the defect (`keyOf`). */
  readonly causes = new Map<string, Cause>();
  private readonly claimed = new Set<string>();

  constructor(
    private readonly rules: readonly Rule[],
    private readonly settings: RuleSettings,
  ) {}

  async investigate(render: RenderView, probe: Probe): Promise<void> {
    if (render.view.count > MOST_ELEMENTS) return;
    const until = performance.now() + BOUND_MS;
    const writer = new SelectorWriter(render.view);
    for (const { rule, sighting } of judge(render, this.rules, this.settings)) {
      const key = keyOf(rule, sighting);
      if (this.claimed.has(key) || /delivery|viewport/.test(rule.meta.family)) continue;
      if (performance.now() > until) return;
      this.claimed.add(key);
      const cause = await this.causeOf(render, rule, sighting, probe, until, writer);
      if (cause) this.causes.set(key, cause);
    }
  }

  private async causeOf(
    render: RenderView,
    rule: Rule,
    sighting: Sighting,
    probe: Probe,
    until: number,
    writer: SelectorWriter,
  ): Promise<Cause | null> {
    for (const suspect of suspectsOf(render.view, sighting)) {
      if (performance.now() > until) return null;
      if (!render.view.isElement(suspect.node)) continue;
      const view = new SnapshotView(await probe.layoutWith(sharersOf(suspect, sighting), suspect.undo));
      if (!isGone({ ...render, view }, rule, sighting)) continue;
      const declaration = await probe.declarationOf(suspect.node, suspect.property);
      const selector = writer.write(suspect.node);
      return { ...named(suspect, declaration), selector, declaration, proven: true };
    }
    return null;
  }
}

/** Repeated siblings share their declaration. */
function sharersOf(suspect: Suspect, sighting: Sighting): number[] {
  return suspect.node === sighting.node ? [sighting.node, ...sighting.related] : [suspect.node];
}

function isGone(render: RenderView, rule: Rule, sighting: Sighting): boolean {
  return !rule.check(render).some(({ key, node }) => key === sighting.key || node === sighting.node);
}

/** A width that is written in parts of the window is another mistake than one in px. */
function named(suspect: Suspect, declaration: Cause['declaration']): Pick<Cause, 'name' | 'message'> {
  const written = declaration === null ? null : `${declaration.property}: ${declaration.value}`;
  const { says } = suspect;
  const start = capital(says);
  const other = Object.entries(suspect.undo)[0]!.join(': ');
  const proof = written === null ? `With \`${other}\`` : `Without \`${written}\``;
  const name =
    declaration && suspect.name === 'fixed-width' && /\d(vw|dvw|svw|lvw)\b/.test(declaration.value)
      ? 'viewport-width'
      : suspect.name;
  return { name, message: `${start}. ${proof} in the live page the defect was gone.` };
}
