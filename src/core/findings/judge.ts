import type { Rule } from '../rules/rule.js';
import type { RenderView, Sighting } from '../sightings/sighting.js';
import { withoutConsequences, type Reported } from './consequences.js';
import { withSettings, type RuleSettings } from './settings.js';

/** What the rules see on one render, consequences filed away and the user's settings applied. */
export function judge(render: RenderView, rules: readonly Rule[], settings: RuleSettings = {}): Reported[] {
  const all = rules.flatMap((rule) => rule.check(render).map((sighting) => ({ rule, sighting })));
  return withSettings(render.view, withoutConsequences(render.view, all), settings);
}

/** The same for every sighting of one defect of a page. */
export function keyOf(rule: Rule, sighting: Sighting): string {
  return defectKey(rule.meta.name, sighting.key);
}

/** @param key that of the rule's sightings of the defect */
export function defectKey(rule: string, key: string): string {
  return `${rule}\n${key}`;
}
