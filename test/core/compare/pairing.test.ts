import { pairingOf } from '../../../src/core/compare/pairing.js';
import type { SnapshotView } from '../../../src/core/layout/view.js';
import { viewOf, type Node } from '../../support/snapshot.js';
import { cards, ferryPage, ferryParts, words } from '../../support/ferry-page.js';

/** Pairs by what the elements say, or by their tags. */
function pairs(before: SnapshotView, after: SnapshotView): string[] {
  const { toB } = pairingOf(before, after);
  const name = (view: SnapshotView, i: number) =>
    view.textOf(i) || view.tag(i) + (view.id(i) && `#${view.id(i)}`);
  return [...toB.keys()].map((i) => `${name(before, i)} → ${toB[i]! < 0 ? '' : name(after, toB[i]!)}`);
}
const unpaired = (before: SnapshotView, after: SnapshotView) =>
  pairs(before, after).filter((text) => text.endsWith('→ '));

test('equal layouts go together element by element', () => {
  for (const text of pairs(ferryPage(), ferryPage())) {
    const [from, to] = text.split(' → ');
    expect(from).toBe(to);
  }
});

test('through what is put in, taken out, moved and said otherwise, the rest is found again', () => {
  const [h1, p, list, footer] = ferryParts() as [Node, Node, Node, Node];
  expect(unpaired(ferryPage(), ferryPage([h1, words('p', 20, 'A new boat.'), p, list, footer]))).toEqual([]);
  expect(unpaired(ferryPage(), ferryPage([h1, list, footer]))).toEqual([
    'Boats cross every day of the year. → ',
  ]);
  expect(unpaired(ferryPage(), ferryPage([footer, list, h1, p]))).toEqual([]);
  const said = ferryPage([h1, words('p', 40, 'Boats cross on every day of summer.'), list, footer]);
  expect(pairs(ferryPage(), said)).toContain(
    'Boats cross every day of the year. → Boats cross on every day of summer.',
  );
});

test('elements that something new stands round are still the same, and so are those it was taken from', () => {
  const [h1, p, list, footer] = ferryParts() as [Node, Node, Node, Node];
  const wrapped = ferryPage([
    h1,
    { tag: 'div', class: 'round', box: [0, 40, 1000, 140], children: [p, list] },
    footer,
  ]);
  expect(unpaired(ferryPage(), wrapped)).toEqual([]);
  expect(unpaired(wrapped, ferryPage())).toEqual(['div → ']);
});

test('of repeated elements the right ones go together when one is taken out', () => {
  const before = viewOf({ width: 1000 }, [cards(0, ['Near Isle', 'Far Isle', 'Ember Rock', 'Quay'])]);
  const after = viewOf({ width: 1000 }, [cards(0, ['Near Isle', 'Ember Rock', 'Quay'])]);
  expect(unpaired(before, after)).toEqual(['li → ', 'Far Isle → ']);
  expect(pairs(before, after)).toEqual(
    expect.arrayContaining(['Near Isle → Near Isle', 'Ember Rock → Ember Rock', 'Quay → Quay']),
  );
});

test('what is moved into something else is found by its name and words', () => {
  const [h1, p, list, footer] = ferryParts() as [Node, Node, Node, Node];
  const into = { ...footer, children: [{ ...p, box: [0, 210, 1000, 20] as const }] };
  expect(unpaired(ferryPage(), ferryPage([h1, list, into]))).toEqual([]);
});

test('an id goes before all else', () => {
  const at = (id: string, says: string): Node => words('p', 0, says, { id });
  const before = viewOf({ width: 1000 }, [
    at('first', 'Alpha of the harbour'),
    at('second', 'Beta of the quay'),
  ]);
  const after = viewOf({ width: 1000 }, [
    at('second', 'Alpha of the harbour'),
    at('first', 'Beta of the quay'),
  ]);
  expect(pairs(before, after)).toContain('Alpha of the harbour → Beta of the quay');
});

test('a long list is paired as well, and deep pages do not end it', () => {
  const names = Array.from({ length: 400 }, (_, i) => `Sailing number ${i}`);
  const list = (all: readonly string[]) =>
    viewOf(
      { width: 1000 },
      all.map((says, i) => words('p', 20 * i, says)),
    );
  const [one] = [list(names.filter((_, i) => i !== 200))];
  expect(unpaired(list(names), one)).toEqual(['Sailing number 200 → ']);
  let deep: Node = words('p', 0, 'At the bottom');
  for (let depth = 0; depth < 2000; depth++) deep = { tag: 'div', box: [0, 0, 1000, 20], children: [deep] };
  expect(unpaired(viewOf({ width: 1000 }, [deep]), viewOf({ width: 1000 }, [deep]))).toEqual([]);
});
