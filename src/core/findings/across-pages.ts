import { seenUnder } from './seen-under.js';
import { joinedSpans } from './swept.js';
import { gravest } from '../sightings/sighting.js';
import { pathIn } from './judge.js';
import type { Finding } from './finding.js';

/** In these, pages of one site have the same elements, unless they stand in what is one page's own. */
const SHARED_PARTS = /^(header|footer|nav)$/;
const OWN_PARTS = /^(main|article|section|aside|dialog)$/;

/**
 * One finding of a template's defect, however many pages show it: same rule, same place, and the same declaration
 * behind it, a part of the page that pages share, or the same list of things. It keeps the id that it has on the first page.
 * @param apart findings for which it says different things are never one
 */
export function mergeAcrossPages<F extends Finding>(
  findings: readonly F[],
  apart: (finding: F) => string = () => '',
): F[] {
  const merged = new Map<string, F>();
  for (const finding of findings) {
    const template = templateKey(finding);
    const key = template === null ? null : `${apart(finding)}\n${template}`;
    const first = key === null ? undefined : merged.get(key);
    if (!first) {
      merged.set(key ?? `${finding.page}\n${finding.id}`, finding);
      continue;
    }
    merged.set(key!, {
      ...first,
      severity: gravest([first.severity, finding.severity])!,
      pages: [...new Set([...first.pages, ...finding.pages])],
      spans: joinedSpans([first, finding]),
      seen: [...first.seen, ...seenUnder(first.message, finding)],
    });
  }
  return [...merged.values()];
}

function templateKey({ rule, key, details, cause }: Finding): string | null {
  // What pages miss is the same thing where it has the same addresses.
  if (details.length > 0) return [rule, key, ...details].join('\n');
  const source = cause?.declaration?.source ?? null;
  const isShared = isInSharedPart(pathIn(key));
  if (source === null && !isShared) return null;
  // A style element or attribute is the page's own, whatever its line.
  if (source !== null && !/\.(css|scss|sass|less|styl)(:|$)/.test(source) && !isShared) return null;
  return [rule, key, source ?? ''].join('\n');
}

/** @param path steps of tags with classes or an id, from the top down; a word may stand before it */
function isInSharedPart(path: string): boolean {
  const tags = path.split('>').map((step) => /^[\w-]*/.exec(step.split(' ').at(-1)!)![0]);
  const at = tags.findIndex((tag) => SHARED_PARTS.test(tag));
  return at >= 0 && !tags.slice(0, at).some((tag) => OWN_PARTS.test(tag));
}
