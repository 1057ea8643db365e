import { overfullRow } from './drivers.js';
import { signature } from '../identity/signature.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { unwrapped } from '../layout/wrappers.js';
import type { Sighting } from './sighting.js';

/** What was seen of one defect on a render: repeated siblings, which share their signature, together. */
export interface Culprits<T> {
  readonly entries: readonly T[];
  /** The part of a sighting that says who is at fault. */
  readonly fault: Pick<Sighting, 'node' | 'related' | 'key'>;
}

/** What the items of a row that is too wide share, whatever each of them is; else an element's own signature. */
export function rowOrOwn(view: SnapshotView, i: NodeIndex): string {
  const row = overfullRow(view, i);
  return row >= 0 ? `row ${signature(view, row)}` : signature(view, i);
}

/**
 * Puts together what elements of the same signature are at fault for, in the order in which each first came. A nameless wrapper of words is
 * no element that anybody looks for: what holds it is.
 * @param sameness what repeated elements share
 */
export function byCulprit<T extends { readonly culprit: NodeIndex }>(
  view: SnapshotView,
  found: Iterable<T>,
  sameness: (view: SnapshotView, i: NodeIndex) => string = signature,
): Culprits<T>[] {
  const groups = new Map<string, T[]>();
  for (const each of found) {
    const entry = { ...each, culprit: unwrapped(view, each.culprit) };
    const key = sameness(view, entry.culprit);
    const group = groups.get(key);
    if (group) group.push(entry);
    else groups.set(key, [entry]);
  }
  return [...groups].map(([key, entries]) => {
    const [node, ...related] = [...new Set(entries.map(({ culprit }) => culprit))].sort((a, b) => a - b);
    return { entries, fault: { node: node!, related, key } };
  });
}
