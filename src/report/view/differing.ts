import { sizeText } from '../../core/geometry/format.js';
import { DIFFERENCE_KINDS } from '../../core/compare/structure/difference.js';
import type { DifferenceRecord, PairRecord } from '../../run/compare/record.js';

/** Whether anything of two renders differs. */
export function isDiffering({ differences, pixels, variant }: PairRecord): boolean {
  return differences.length > 0 || (pixels?.boxes.length ?? 0) > 0 || variant !== null;
}

/** One difference with the pairs of a page that show it. */
export interface GroupedDifference {
  readonly difference: DifferenceRecord;
  readonly on: readonly PairRecord[];
}

/** The differences of some pairs of one page, what is the same on several profiles once, in the reader's order of interest. */
export function groupedDifferences(pairs: readonly PairRecord[]): GroupedDifference[] {
  const groups = new Map<string, { difference: DifferenceRecord; on: PairRecord[] }>();
  for (const pair of pairs)
    for (const difference of pair.differences) {
      // Lengths are others on every profile, and it is one difference all the same.
      const key = [difference.kind, difference.a, difference.b, difference.count].join('\n');
      const group = groups.get(key) ?? { difference, on: [] };
      groups.set(key, group);
      if (!group.on.includes(pair)) group.on.push(pair);
    }
  const order = (kind: DifferenceRecord['kind']) => DIFFERENCE_KINDS.indexOf(kind);
  return [...groups.values()].sort((a, b) => order(a.difference.kind) - order(b.difference.kind));
}

/** A place that looks otherwise, with the pairs that show it. */
export interface PixelPlace {
  readonly selector: string;
  readonly on: readonly PairRecord[];
  /** How large it is on the first of them. */
  readonly px: string;
}

/** Places that look otherwise and that no difference of structure tells. */
export function pixelPlaces(pairs: readonly PairRecord[]): PixelPlace[] {
  const places = new Map<string, { selector: string; on: PairRecord[]; px: string }>();
  for (const pair of pairs)
    for (const box of pair.pixels?.boxes ?? []) {
      if (box.explained) continue;
      const selector = box.selector ?? 'the page';
      const place = places.get(selector) ?? { selector, on: [], px: sizeText(box) };
      places.set(selector, place);
      if (!place.on.includes(pair)) place.on.push(pair);
    }
  return [...places.values()];
}
