import { gravest } from '../sightings/sighting.js';
import type { Finding } from './finding.js';

/** In these, pages of one site have the same elements. */
const SHARED_PARTS = /(^|>)(header|footer|nav)\b/;

/**
 * One finding of a template's defect, however many pages show it: same rule, same place, and either the same declaration
 * behind it or a part of the page that pages share. It keeps the id that it has on the first page.
 */
export function mergeAcrossPages<F extends Finding>(findings: readonly F[]): F[] {
  const merged = new Map<string, F>();
  for (const finding of findings) {
    const key = templateKey(finding);
    const first = key === null ? undefined : merged.get(key);
    if (!first) {
      merged.set(key ?? `${finding.page}\n${finding.id}`, finding);
      continue;
    }
    merged.set(key!, {
      ...first,
      severity: gravest([first.severity, finding.severity])!,
      pages: [...new Set([...first.pages, ...finding.pages])],
      seen: [...first.seen, ...finding.seen],
    });
  }
  return [...merged.values()];
}

function templateKey({ rule, key, cause }: Finding): string | null {
  const source = cause?.declaration?.source ?? null;
  const isShared = SHARED_PARTS.test(key) || /^#/.test(key);
  if (source === null && !isShared) return null;
  // A style element or attribute is the page's own, whatever its line.
  if (source !== null && !/\.(css|scss|sass|less|styl)(:|$)/.test(source) && !isShared) return null;
  return [rule, key, source ?? ''].join('\n');
}
