import type { Reported } from './consequences.js';
import { sceneOf } from '../layout/scene.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import type { Severity } from '../sightings/sighting.js';

/** How one rule is to be taken, everywhere or for some elements. */
export interface RuleSetting {
  /** `off` leaves the rule out. */
  readonly severity?: Severity | 'off' | undefined;
  /** Less than this is not reported, CSS px; it can only ask for more than the rule itself does. */
  readonly leastPx?: number | undefined;
  /** The same for elements of a selector and what is in them. */
  readonly elements: readonly {
    readonly selector: string;
    readonly severity?: Severity | 'off' | undefined;
    readonly leastPx?: number | undefined;
  }[];
}

export type RuleSettings = Readonly<Record<string, RuleSetting>>;

/** Selectors that the snapshot has to name for the settings to be applied. */
export function selectorsIn(settings: RuleSettings): string[] {
  return Object.values(settings).flatMap(({ elements }) => elements.map(({ selector }) => selector));
}

/** What is left of a render's sightings under the user's settings and the page's own exemptions. */
export function withSettings(
  view: SnapshotView,
  reported: readonly Reported[],
  settings: RuleSettings,
): Reported[] {
  return reported.flatMap((entry) => {
    const { rule, sighting } = entry;
    if (isAllowedByPage(view, sighting.node, rule.meta.name)) return [];
    const setting = settings[rule.meta.name];
    if (!setting) return [entry];
    const [own] = setting.elements.filter(({ selector }) => isWithin(view, sighting.node, selector));
    const severity = own?.severity ?? setting.severity;
    const least = own?.leastPx ?? setting.leastPx ?? 0;
    if (severity === 'off' || (sighting.by !== null && sighting.by.px < least)) return [];
    return [severity === undefined ? entry : { rule, sighting: { ...sighting, severity } }];
  });
}

/** `data-isoptic-allow="rule another-rule"`; with nothing in it, every rule. */
function isAllowedByPage(view: SnapshotView, node: NodeIndex, rule: string): boolean {
  return view.snapshot.allowed.some(
    (entry) =>
      sceneOf(view).contains(entry.node, node) &&
      (entry.rules.trim() === '' || entry.rules.split(/\s+/).includes(rule)),
  );
}

function isWithin(view: SnapshotView, node: NodeIndex, selector: string): boolean {
  const nodes = view.snapshot.matches.find((match) => match.selector === selector)?.nodes ?? [];
  return nodes.some((outer) => sceneOf(view).contains(outer, node));
}
