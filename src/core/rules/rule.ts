import type { Doubt } from '../sightings/doubt.js';
import type { RenderView, Severity, Sighting } from '../sightings/sighting.js';

export const FAMILIES = [
  'overflow',
  'overlap',
  'clipped',
  'viewport',
  'legibility',
  'touch',
  'media',
  'flow',
  'delivery',
] as const;
export type Family = (typeof FAMILIES)[number];

/** What a person sees of the layout itself; the other families are about what it is made of and for. */
export const LAYOUT_FAMILIES: readonly Family[] = ['overflow', 'overlap', 'clipped'];

export interface RuleMeta {
  /** Kebab case; also the name of its page in `docs/rules/`. */
  readonly name: string;
  readonly family: Family;
  readonly severity: Severity;
  /** What a person sees, one clause. */
  readonly summary: string;
  /** Counts only where a wider render of the same page is free of it: what holds at every width is meant. */
  readonly needsFreeWidth?: boolean;
  /** What it sees makes everything else on that render moot. */
  readonly standsAlone?: boolean;
  /** The rule and the key of a finding about a page that tells of the same defect, with its harm: then this one is left out. */
  readonly toldBy?: { readonly rule: string; readonly key: string };
}

export interface Rule {
  readonly meta: RuleMeta;
  check(render: RenderView): Sighting[];
  /** The spots that boxes alone don't decide. What is seen of them in the live page stands in the layout when `check` is called again. */
  doubts?(render: RenderView): Doubt[];
  /** What to say of the details of all renders together; without it, what the worst render says stays. */
  tell?(details: readonly string[]): string;
}

/** How bad a sighting is: by itself, or else by its rule. */
export function severityOf(rule: Rule, sighting: Sighting): Severity {
  return sighting.severity ?? rule.meta.severity;
}
