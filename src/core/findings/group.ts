import { rounded } from '../geometry/rect.js';
import { SEVERITIES, type Rule, type RenderView, type Severity, type Sighting } from '../rules/rule.js';
import { withoutConsequences } from './consequences.js';
import { digest } from './digest.js';
import type { Finding, Seen } from './finding.js';
import { SelectorWriter } from './selector.js';

interface Group {
  readonly rule: Rule;
  readonly key: string;
  readonly entries: {
    readonly page: string;
    readonly profile: string;
    readonly sighting: Sighting;
    readonly writer: SelectorWriter;
  }[];
}

/**
 * Runs the rules over all renders of one page and its states and makes one finding of all sightings of the same defect.
 * The order of `renders` decides only the order inside `seen`.
 */
export function findingsOfPage(
  page: string,
  renders: readonly RenderView[],
  rules: readonly Rule[],
): Finding[] {
  const groups = new Map<string, Group>();
  for (const render of renders) {
    const writer = new SelectorWriter(render.view);
    const reported = rules.flatMap((rule) => rule.check(render).map((sighting) => ({ rule, sighting })));
    for (const { rule, sighting } of withoutConsequences(render.view, reported)) {
      const key = `${rule.meta.name}\n${sighting.key}`;
      let group = groups.get(key);
      if (!group) groups.set(key, (group = { rule, key, entries: [] }));
      group.entries.push({ page: render.page, profile: render.device.name, sighting, writer });
    }
  }
  return [...groups.values()].map((group) => toFinding(page, group)).sort(byHarm);
}

function toFinding(page: string, { rule, key, entries }: Group): Finding {
  const worst = entries.reduce((a, b) => ((b.sighting.by?.px ?? 0) > (a.sighting.by?.px ?? 0) ? b : a));
  const selector = worst.writer.write(worst.sighting.node);
  const related = new Set<string>();
  for (const { sighting, writer } of entries) {
    for (const node of [sighting.node, ...sighting.related]) related.add(writer.write(node));
  }
  related.delete(selector);
  const seen: Seen[] = entries.map(({ page: at, profile, sighting }) => ({
    page: at,
    profile,
    rect: rounded(sighting.rect),
    by: sighting.by && { axis: sighting.by.axis, px: Math.round(sighting.by.px * 100) / 100 },
  }));
  return {
    id: `${rule.meta.name}-${digest(`${page}\n${key}`)}`,
    rule: rule.meta.name,
    family: rule.meta.family,
    severity: severityOf(rule, entries),
    // What shows only in a state of the page is told where it shows.
    page: entries[0]!.page,
    selector,
    related: [...related],
    message: worst.sighting.message,
    cause: null,
    seen,
  };
}

/** The gravest of its sightings. */
function severityOf(rule: Rule, entries: Group['entries']): Severity {
  const all = entries.map(({ sighting }) => sighting.severity ?? rule.meta.severity);
  return SEVERITIES.find((severity) => all.includes(severity)) ?? rule.meta.severity;
}

/** Most harmful first, then the widest spread, then from the top of the page down. */
function byHarm(a: Finding, b: Finding): number {
  return (
    SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity) ||
    b.seen.length - a.seen.length ||
    (a.seen[0]?.rect.y ?? 0) - (b.seen[0]?.rect.y ?? 0) ||
    a.id.localeCompare(b.id)
  );
}
