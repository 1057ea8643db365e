import { pairingOf } from '../../../src/core/compare/pairing.js';
import { layoutsOf } from '../../../src/core/compare/layouts.js';
import { unlikeness } from '../../../src/core/compare/unlike.js';
import {
  ALL_KINDS,
  type Difference,
  type DifferenceKind,
} from '../../../src/core/compare/structure/difference.js';
import { differencesOf } from '../../../src/core/compare/structure/differences.js';
import { FLAG_CONTROL } from '../../../src/core/layout/snapshot.js';
import type { SnapshotView } from '../../../src/core/layout/view.js';
import { viewOf, type Node } from '../../support/snapshot.js';
import { cards, ferryPage, ferryParts, lowered, WIDTH, words } from '../../support/ferry-page.js';

const NOTHING = { a: new Set<number>(), b: new Set<number>() };
const found = (before: SnapshotView, after: SnapshotView, without = NOTHING): Difference[] =>
  differencesOf(pairingOf(before, after), { tolerance: { moved: 1, resized: 1 }, without, kinds: ALL_KINDS });
const told = (before: SnapshotView, after: SnapshotView) =>
  found(before, after).map(({ message }) => message);

const [h1, p, list, footer] = ferryParts() as [Node, Node, Node, Node];
const restyled = (node: Node, style: Node['style']): Node => ({
  ...node,
  style: { ...node.style, ...style },
});

test('nothing differs between a layout and itself', () => {
  expect(told(ferryPage(), ferryPage())).toEqual([]);
  expect(unlikeness(pairingOf(ferryPage(), ferryPage()))).toBe(0);
});

test('what is new moves all below it, and only the new is told', () => {
  const after = ferryPage([
    h1,
    words('p', 30, 'A new boat.'),
    ...[p, list, footer].map((node) => lowered(node, 30)),
  ]);
  const [difference, ...others] = found(ferryPage(), after);
  expect(difference).toMatchObject({ kind: 'inserted', a: null, count: 1 });
  expect(difference!.message).toMatch(/^p(:nth-of-type\(1\))? is new$/);
  expect(others).toEqual([]);
});

test.each([
  ['removed', 'p is gone', ferryPage([h1, lowered(list, -40), lowered(footer, -40)])],
  ['hidden', 'p is not seen any more', ferryPage([h1, { ...p, hidden: true }, list, footer])],
  [
    'text',
    'p says “Boats cross now and then.” where it said “Boats cross every day of the year.”',
    ferryPage([h1, { ...p, says: 'Boats cross now and then.' }, list, footer]),
  ],
  [
    'restyled',
    'h1 has another look: color rgb(0, 0, 0) → rgb(180, 0, 0)',
    ferryPage([restyled(h1, { color: 'rgb(180, 0, 0)' }), p, list, footer]),
  ],
  [
    'restyled',
    'h1 has another look: font-weight 400 → 800',
    ferryPage([{ ...h1, setting: '800;normal;none;normal;start' }, p, list, footer]),
  ],
  ['moved', 'h1 moved 24 px to the right', ferryPage([{ ...h1, box: [24, 0, WIDTH, 20] }, p, list, footer])],
  [
    'resized',
    'h1 is 700 px wide where it was 1000 px: width auto → 700px',
    ferryPage([{ ...h1, box: [0, 0, 700, 20], style: { width: '700px' } }, p, list, footer]),
  ],
  [
    'positioned',
    'footer is fixed to the screen',
    ferryPage([h1, p, list, restyled(footer, { position: 'fixed' })]),
  ],
])('%s: %s', (kind, message, after) => {
  expect(found(ferryPage(), after).map((each) => [each.kind, each.message])).toEqual([[kind, message]]);
});

test('repeated elements with one difference are told once', () => {
  const painted = {
    ...list,
    children: list.children!.map((card) => restyled(card, { 'background-color': 'rgb(9, 9, 9)' })),
  };
  const [difference, ...others] = found(ferryPage(), ferryPage([h1, p, painted, footer]));
  expect(others).toEqual([]);
  expect(difference).toMatchObject({
    count: 3,
    message: '3 × li.card have another look: background-color rgb(220, 235, 240) → rgb(9, 9, 9)',
  });
  expect(difference!.places).toHaveLength(3);
});

test('a part that grows is told with what it does to the page, once', () => {
  const taller = { ...p, box: [0, 40, WIDTH, 60] as const, style: { 'font-size': '40px' } };
  const main = (children: readonly Node[], height: number): Node => ({
    tag: 'main',
    box: [0, 0, WIDTH, height],
    children,
  });
  const before = ferryPage([main([h1, p, list], 180), footer]);
  const after = ferryPage([main([h1, taller, lowered(list, 40)], 220), lowered(footer, 40)]);
  expect(found(before, after)).toMatchObject([
    {
      kind: 'restyled',
      follows: ['main grew from 180 to 220 px', 'Everything below it moved down by 40 px'],
    },
  ]);
});

test('columns, order, and pictures', () => {
  const stacked = {
    ...list,
    box: [0, 80, WIDTH, 320] as const,
    style: { display: 'flex', 'flex-direction': 'column' },
    children: list.children!.map((card, i) => ({
      ...card,
      box: [0, 80 + 110 * i, 280, 100] as const,
      children: [words('h3', 90 + 110 * i, card.children![0]!.says!, { box: [0, 90 + 110 * i, 280, 20] })],
    })),
  };
  expect(
    found(ferryPage(), viewOf({ width: 400 }, [h1, p, stacked, lowered(footer, 220)])).map(
      ({ kind, from, to }) => [kind, from, to],
    ),
  ).toContainEqual(['columns', 3, 1]);
  const turned = ferryPage([h1, p, cards(80, ['Far Isle', 'Near Isle', 'Ember Rock']), footer]);
  expect(found(ferryPage(), turned).map(({ kind }) => kind)).toEqual(['reordered']);
  const pictured = (address: string) =>
    viewOf({ width: WIDTH, sources: [{ node: 2, address }] }, [{ tag: 'img', box: [0, 0, 100, 100] }]);
  expect(told(pictured('/a/harbour.svg'), pictured('/a/quay.svg'))).toEqual([
    'img shows quay.svg where it showed harbour.svg',
  ]);
});

test('links that make room for a button are one difference', () => {
  const links = (hidden: boolean): Node => ({
    tag: 'nav',
    box: [0, 0, 600, 40],
    hidden,
    children: ['Times', 'Fares', 'Fleet'].map((says, i) => ({
      tag: 'a',
      box: [i * 100, 0, 90, 40] as const,
      says,
      hidden,
    })),
  });
  const button = (hidden: boolean): Node => ({
    tag: 'button',
    id: 'menu',
    box: [0, 0, 80, 40],
    says: 'Menu',
    flags: FLAG_CONTROL,
    hidden,
  });
  expect(
    told(
      viewOf({ width: WIDTH }, [links(false), button(true)]),
      viewOf({ width: 400 }, [links(true), button(false)]),
    ),
  ).toEqual(['nav makes room for the button button#menu']);
});

test('what is left out is not told, with all that is in it; a kind that is not wanted neither', () => {
  const after = ferryPage([h1, { ...p, says: 'It is 14:25.' }, list, footer]);
  const at = (view: SnapshotView) =>
    Array.from({ length: view.count }, (_, i) => i).find((i) => view.tag(i) === 'p')!;
  expect(found(ferryPage(), after, { a: new Set([at(ferryPage())]), b: new Set([at(after)]) })).toEqual([]);
  const kinds = { has: (kind: DifferenceKind) => kind !== 'text' };
  expect(
    differencesOf(pairingOf(ferryPage(), after), {
      tolerance: { moved: 1, resized: 1 },
      without: NOTHING,
      kinds,
    }),
  ).toEqual([]);
});

test('a figure of how unlike two renders are rises with what differs, up to 1', () => {
  const unlike = (after: SnapshotView) => unlikeness(pairingOf(ferryPage(), after));
  const one = unlike(ferryPage([{ ...h1, says: 'Another heading' }, p, list, footer]));
  const two = unlike(
    ferryPage([{ ...h1, says: 'Another heading' }, { ...p, says: 'Other words' }, list, footer]),
  );
  expect(one).toBeGreaterThan(0);
  expect(two).toBeGreaterThan(one);
  expect(unlike(viewOf({ width: WIDTH }, [{ tag: 'pre', box: [0, 0, 10, 10], says: 'Nothing alike' }]))).toBe(
    1,
  );
});

test('renders are grouped by layout, and what sets the others apart is told', () => {
  const wide = (name: string) => ({ name, view: ferryPage() });
  const narrow = { name: 'phone', view: ferryPage([h1, { ...p, hidden: true }, list, footer]) };
  expect(layoutsOf([narrow, wide('laptop'), wide('desktop')])).toEqual([
    { names: ['laptop', 'desktop'], apart: [], differences: 0 },
    { names: ['phone'], apart: ['p is not seen any more'], differences: 1 },
  ]);
});
