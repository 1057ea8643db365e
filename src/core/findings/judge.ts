import type { SnapshotView } from '../layout/view.js';
import { LAYOUT_FAMILIES, type Rule } from '../rules/rule.js';
import { area } from '../geometry/rect.js';
import type { Doubt } from '../sightings/doubt.js';
import type { RenderView, Sighting } from '../sightings/sighting.js';
import { withoutConsequences, type Reported } from './consequences.js';
import { withSettings, type RuleSettings } from './settings.js';

/** What was seen on one render. */
export interface JudgedRender {
  readonly render: RenderView;
  readonly reported: readonly Reported[];
}

/** What the rules see on one render, consequences filed away and the user's settings applied. */
export function judge(render: RenderView, rules: readonly Rule[], settings: RuleSettings = {}): Reported[] {
  return new Judge(rules, settings).judge(render);
}

/**
 * Judges renders one after another. What rules of the layout see hangs on the layout and its device alone; of a layout that
 * is judged twice (in the live page, and with all others) it is not looked for again.
 */
export class Judge {
  private readonly seen = new WeakMap<SnapshotView, Map<Rule, readonly Sighting[]>>();

  /** @param onFailure is told of a rule that throws, which sees nothing on that render; without it, what was thrown goes on */
  constructor(
    private readonly rules: readonly Rule[],
    private readonly settings: RuleSettings,
    private readonly onFailure?: (rule: Rule, render: RenderView, error: unknown) => void,
  ) {}

  judge(render: RenderView): Reported[] {
    const all = this.rules.flatMap((rule) =>
      this.sightings(rule, render).map((sighting) => ({ rule, sighting })),
    );
    const alone = all.filter(({ rule }) => rule.meta.standsAlone);
    const told = alone.length > 0 ? alone : withoutConsequences(render.view, all);
    return withSettings(render.view, told, this.settings);
  }

  /** The spots of a render that boxes alone don't decide, the largest first. */
  doubts(render: RenderView): Doubt[] {
    return this.rules
      .flatMap((rule) => rule.doubts?.(render) ?? [])
      .sort((a, b) => area(b.area) - area(a.area));
  }

  /** What one rule sees. */
  sightings(rule: Rule, render: RenderView): readonly Sighting[] {
    if (!LAYOUT_FAMILIES.includes(rule.meta.family)) return this.checked(rule, render);
    const known = this.seen.get(render.view) ?? new Map<Rule, readonly Sighting[]>();
    this.seen.set(render.view, known);
    let found = known.get(rule);
    if (!found) known.set(rule, (found = this.checked(rule, render)));
    return found;
  }

  private checked(rule: Rule, render: RenderView): readonly Sighting[] {
    try {
      return rule.check(render);
    } catch (error) {
      if (!this.onFailure) throw error;
      this.onFailure(rule, render, error);
      return [];
    }
  }
}

/** The same for every sighting of one defect of a page. */
export function keyOf(rule: Rule, sighting: Sighting): string {
  return defectKey(rule.meta.name, sighting.key);
}

/** @param key that of the rule's sightings of the defect */
export function defectKey(rule: string, key: string): string {
  return `${rule}\n${key}`;
}

/** What a defect's key says beside the rule: of most, the path of the element at fault. */
export function pathIn(key: string): string {
  return key.slice(key.indexOf('\n') + 1);
}
