import { pairingOf } from '../../../src/core/compare/pairing.js';
import { ALL_KINDS } from '../../../src/core/compare/structure/difference.js';
import { differencesOf } from '../../../src/core/compare/structure/differences.js';
import { ferryPage, words } from '../../support/ferry-page.js';
import type { Node } from '../../support/snapshot.js';

const WITHOUT = { a: new Set<number>(), b: new Set<number>() };

const told = (before: readonly Node[], after: readonly Node[]) =>
  differencesOf(pairingOf(ferryPage(before), ferryPage(after)), {
    tolerance: { moved: 1, resized: 1 },
    without: WITHOUT,
    kinds: ALL_KINDS,
  }).map(({ kind, a, message, from, to }) => ({ kind, a, message, from, to }));

/** A line of text as the letters of it lie in its box. */
const line = (y: number) => [{ box: [0, y, 200, 20] as const, text: 'Boats cross' }];

/** Two drawn boxes with words, the second 20 px down over the first. */
const boxes = (style: readonly [Node['style'], Node['style']], y = 30): Node[] => [
  words('h1', 0, 'Crossings'),
  ...style.map((own, i): Node => {
    const top = i === 0 ? 10 : y;
    return {
      tag: 'div',
      class: i === 0 ? 'notice' : 'panel',
      box: [0, top, 400, 60],
      style: { position: 'relative', 'background-color': 'rgb(255, 240, 210)', 'z-index': '0', ...own },
      children: [
        { ...words('p', top + 25, i === 0 ? 'Boats cross' : 'Seats are kept'), lines: line(top + 25) },
      ],
    };
  }),
];

test('what another one of two lies over is told of the one that was raised, and not its z-index beside it', () => {
  expect(told(boxes([{}, {}]), boxes([{ 'z-index': '5' }, {}]))).toEqual([
    { kind: 'stacked', a: 'div.notice', message: 'div.notice lies over div.panel now', from: '0', to: '5' },
  ]);
});

test('or of the one that was lowered', () => {
  expect(told(boxes([{}, {}]), boxes([{}, { 'z-index': '-1' }]))).toEqual([
    { kind: 'stacked', a: 'div.panel', message: 'div.panel lies under div.notice now', from: '0', to: '-1' },
  ]);
});

test('where nothing lies on anything, a z-index is a style like others', () => {
  expect(told(boxes([{}, {}], 200), boxes([{ 'z-index': '5' }, {}], 200))).toEqual([
    expect.objectContaining({
      kind: 'restyled',
      message: expect.stringContaining('z-index 0 → 5') as string,
    }),
  ]);
});

test('what was moved onto something else was not restacked', () => {
  const kinds = told(boxes([{}, {}], 200), boxes([{}, {}], 30)).map(({ kind }) => kind);
  expect(kinds).not.toContain('stacked');
  expect(kinds.length).toBeGreaterThan(0);
});
