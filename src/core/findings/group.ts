import { isListMarker } from '../intent/bullets.js';
import { rounded } from '../geometry/rect.js';
import { severityOf, type Rule } from '../rules/rule.js';
import { gravest, SEVERITIES, type RenderView, type Severity } from '../sightings/sighting.js';
import type { Cause } from '../cause/cause.js';
import { defectKey, judge, keyOf, type JudgedRender } from './judge.js';
import { mergeByDeclaration } from './by-declaration.js';
import { digest } from '../identity/digest.js';
import type { NodeIndex } from '../layout/view.js';
import type { Finding, Seen } from './finding.js';
import type { Entry, Group } from './sighting-group.js';
import { rightBeside } from './right-beside.js';
import { shownParts } from './shown.js';
import type { RuleSettings } from './settings.js';
import { wordsIn } from '../sightings/words.js';
import { SelectorWriter } from '../identity/selector.js';
import { spansOfGroup, type Swept } from './swept.js';
import { withWidths } from './widths.js';

export interface JudgeOptions {
  /** By the key of the defect. */
  readonly causes?: ReadonlyMap<string, Cause>;
  readonly settings?: RuleSettings;
}

/**
 * Runs the rules over all renders of one page and its states and makes one finding of all sightings of the same defect.
 * The order of `renders` decides only the order inside `seen`.
 */
export function findingsOfPage(
  page: string,
  renders: readonly RenderView[],
  rules: readonly Rule[],
  { causes = new Map(), settings = {} }: JudgeOptions = {},
): Finding[] {
  const judged = renders.map((render) => ({ render, reported: judge(render, rules, settings) }));
  return findingsOf(page, judged, { causes });
}

/** What is known of a page's defects beside its renders. */
export interface Known {
  /** By the key of the defect. */
  readonly causes: ReadonlyMap<string, Cause>;
  /** What a search over sizes found. */
  readonly swept?: Swept | undefined;
}

/** The same of renders that are judged already. */
export function findingsOf(
  page: string,
  judged: readonly JudgedRender[],
  { causes, swept }: Known,
): Finding[] {
  const groups = new Map<string, Group>();
  for (const { render, reported } of judged) {
    const writer = new SelectorWriter(render.view);
    for (const { rule, sighting } of reported) {
      const key = keyOf(rule, sighting);
      let group = groups.get(key);
      if (!group) groups.set(key, (group = { rule, key, entries: [] }));
      group.entries.push({
        page: render.page,
        profile: render.device.name,
        width: render.device.width,
        sighting,
        writer,
      });
    }
  }
  const renders = judged.map(({ render }) => render);
  const findings = withWidths(withoutRetold([...groups.values()]), renders)
    .map((group) => ({
      ...toFinding(page, group, causes.get(group.key) ?? null, renders),
      ...(swept && { spans: spansOfGroup(page, group, swept) }),
    }))
    .sort(byHarm);
  return mergeByDeclaration(findings).sort(byHarm);
}

/** Without what another finding of the page tells already. */
function withoutRetold(groups: readonly Group[]): Group[] {
  const told = new Set(groups.map(({ key }) => key));
  return groups.filter(({ rule }) => {
    const { toldBy } = rule.meta;
    return toldBy === undefined || !told.has(defectKey(toldBy.rule, toldBy.key));
  });
}

function toFinding(
  page: string,
  { rule, key, entries }: Group,
  cause: Cause | null,
  renders: readonly RenderView[],
): Finding {
  const worst = entries.reduce((a, b) => ((b.sighting.by?.px ?? 0) > (a.sighting.by?.px ?? 0) ? b : a));
  const selector = worst.writer.write(elementOf(worst, worst.sighting.node));
  const details = [...new Set(entries.flatMap(({ sighting }) => sighting.details ?? []))];
  const related = new Set<string>();
  for (const entry of entries) {
    for (const node of [entry.sighting.node, ...entry.sighting.related])
      related.add(entry.writer.write(elementOf(entry, node)));
  }
  related.delete(selector);
  const isTold = rule.tell !== undefined && details.length > 0;
  const message = isTold ? rule.tell!(details) : messageOf(worst);
  const seen: Seen[] = entries.map((entry) => {
    const { page: at, profile, sighting, writer } = entry;
    const own = isTold ? message : messageOf(entry);
    return {
      page: at,
      profile,
      rect: rounded(sighting.rect),
      by: sighting.by && { axis: sighting.by.axis, px: Math.round(sighting.by.px * 100) / 100 },
      ...(own !== message && { message: own }),
      ...shownParts(writer.view, sighting),
    };
  });
  return {
    id: `${rule.meta.name}-${digest(`${page}\n${key}`)}`,
    rule: rule.meta.name,
    family: rule.meta.family,
    severity: gravestOf(rule, entries),
    // What shows only in a state of the page is told where it shows.
    page: entries[0]!.page,
    pages: [...new Set(entries.map((entry) => entry.page))],
    key,
    selector,
    related: [...related],
    message,
    details,
    words: wordsOf(worst),
    cause,
    right: rightBeside(worst, entries, renders),
    seen,
  };
}

/** The element that can be named in the page: of what is generated, the one that it stands in; of what stands before an item, its list. */
function elementOf({ writer: { view } }: Entry, node: NodeIndex): NodeIndex {
  if (view.isElement(node)) return node;
  const host = view.parent(node);
  return isListMarker(view, node) ? view.parent(host) : host;
}

/** Of the page as a whole the first words say nothing. */
function wordsOf(entry: Entry): string {
  const { view } = entry.writer;
  const node = elementOf(entry, entry.sighting.node);
  return node === view.root || node === view.body ? '' : wordsIn(view, node);
}

function messageOf({ sighting, writer: { view } }: Entry): string {
  const { node, message } = sighting;
  if (view.isElement(node) || isListMarker(view, node)) return message;
  return `Its ${view.tag(node)}: ${message.charAt(0).toLowerCase()}${message.slice(1)}`;
}

/** The gravest of its sightings. */
function gravestOf(rule: Rule, entries: Group['entries']): Severity {
  const all = entries.map(({ sighting }) => severityOf(rule, sighting));
  return gravest(all) ?? rule.meta.severity;
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
