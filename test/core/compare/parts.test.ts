import { pairingOf } from '../../../src/core/compare/pairing.js';
import { ALL_KINDS, type DifferenceKind } from '../../../src/core/compare/structure/difference.js';
import { differencesOf } from '../../../src/core/compare/structure/differences.js';
import type { Part, StructureOptions } from '../../../src/core/compare/structure/parts.js';
import { query } from '../../../src/core/identity/query.js';
import type { SnapshotView } from '../../../src/core/layout/view.js';
import { ferryPage, ferryParts } from '../../support/ferry-page.js';
import type { Node } from '../../support/snapshot.js';

const PAGE = { moved: 1, resized: 1 };
const [h1, p, list, footer] = ferryParts() as [Node, Node, Node, Node];
const before = ferryPage();
const found = (after: SnapshotView, options: Partial<StructureOptions>): string[] =>
  differencesOf(pairingOf(before, after), {
    tolerance: PAGE,
    kinds: ALL_KINDS,
    without: { a: new Set(), b: new Set() },
    ...options,
  }).map(({ message }) => message);
const partOf = (after: SnapshotView, selector: string, more: Partial<Part>): Part => ({
  a: new Set(query(before, selector)),
  b: new Set(query(after, selector)),
  tolerance: PAGE,
  kinds: ALL_KINDS,
  ...more,
});

/** The second card stands 6 px further right, and is 3 px wider. */
const shifted = () => {
  const [one, two, three] = list.children as [Node, Node, Node];
  const [x, y, width, height] = two.box;
  const children = [one, { ...two, box: [x + 6, y, width + 3, height] as const }, three];
  return ferryPage([h1, p, { ...list, children }, footer]);
};

test('of a part, lengths may differ by more than of the page', () => {
  const after = shifted();
  expect(found(after, {})).toHaveLength(1);
  expect(found(after, { parts: [partOf(after, 'ul', { tolerance: { moved: 8, resized: 8 } })] })).toEqual([]);
  // Somewhere else it changes nothing.
  expect(
    found(after, { parts: [partOf(after, 'footer', { tolerance: { moved: 8, resized: 8 } })] }),
  ).toHaveLength(1);
});

test('how far a box may stand elsewhere and how much larger it may be are two things', () => {
  const after = shifted();
  expect(found(after, { tolerance: { moved: 8, resized: 1 } })).toHaveLength(1);
  expect(found(after, { tolerance: { moved: 1, resized: 8 } })).toHaveLength(1);
  expect(found(after, { tolerance: { moved: 8, resized: 8 } })).toEqual([]);
});

test('kinds are left out of a part alone; the innermost part around an element holds for it', () => {
  const [one, ...others] = list.children as [Node, ...Node[]];
  const [name] = one.children as [Node];
  const renamed = { ...one, children: [{ ...name, says: 'Nearest Isle' }] };
  const after = ferryPage([
    h1,
    { ...p, says: 'Boats cross every second day.' },
    { ...list, children: [renamed, ...others] },
    footer,
  ]);
  const kinds = { has: (kind: DifferenceKind) => kind !== 'text' };
  expect(found(after, {})).toHaveLength(2);
  const [left] = found(after, { parts: [partOf(after, 'ul', { kinds })] });
  expect(left).toMatch(/^p /);
  const inner = [partOf(after, 'h3', {}), partOf(after, 'ul', { kinds })];
  expect(found(after, { parts: inner })).toHaveLength(2);
});
