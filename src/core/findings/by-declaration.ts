import { union } from '../geometry/rect.js';
import { gravest } from '../sightings/sighting.js';
import { seenUnder } from './seen-under.js';
import { joinedSpans } from './swept.js';
import type { Finding, Seen } from './finding.js';

/**
 * One finding of what one declaration does to several elements of a page: same rule, and the same declaration proven to be
 * behind it. It keeps the id, the element and the message of the first; the others are in `related`.
 * @param findings of one page and its states, most harmful first
 */
export function mergeByDeclaration(findings: readonly Finding[]): Finding[] {
  const groups = new Map<string, Finding[]>();
  for (const finding of findings) {
    const key = declarationKey(finding) ?? finding.id;
    const group = groups.get(key);
    if (group) group.push(finding);
    else groups.set(key, [finding]);
  }
  return [...groups.values()].map(merged);
}

/** Null where nothing tells that two elements share the declaration. */
function declarationKey({ rule, cause }: Finding): string | null {
  const declaration = cause?.declaration;
  // What a media query would have done is another thing for every element in it.
  if (!cause || !declaration?.selector || cause.name === 'media-query-absent') return null;
  const { selector, property, value, source } = declaration;
  return [rule, cause.name, source ?? '', selector, property, value].join('\n');
}

function merged(group: readonly Finding[]): Finding {
  const [first, ...others] = group as [Finding, ...Finding[]];
  if (others.length === 0) return first;
  const related = new Set(group.flatMap((finding) => finding.related));
  for (const { selector } of others) related.add(selector);
  related.delete(first.selector);
  return {
    ...first,
    severity: gravest(group.map(({ severity }) => severity))!,
    pages: [...new Set(group.flatMap(({ pages }) => pages))],
    related: [...related],
    spans: joinedSpans(group),
    seen: joined(group.flatMap((finding) => seenUnder(first.message, finding))),
  };
}

/** One entry a render: all elements that show the defect there, and the farthest of them. */
function joined(seen: readonly Seen[]): Seen[] {
  const byRender = new Map<string, Seen>();
  for (const entry of seen) {
    const key = `${entry.page}\n${entry.profile}`;
    const earlier = byRender.get(key);
    if (!earlier) {
      byRender.set(key, entry);
      continue;
    }
    const { by, message } = (entry.by?.px ?? 0) > (earlier.by?.px ?? 0) ? entry : earlier;
    byRender.set(key, { ...earlier, rect: union(earlier.rect, entry.rect), by, message });
  }
  return [...byRender.values()];
}
