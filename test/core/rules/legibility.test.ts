import { brokenWords } from '../../../src/core/rules/legibility/broken-words.js';
import { longLines } from '../../../src/core/rules/legibility/long-lines.js';
import { smallText } from '../../../src/core/rules/legibility/small-text.js';
import { textOverlap } from '../../../src/core/rules/overlap/text-overlap.js';
import { tightLines } from '../../../src/core/rules/legibility/tight-lines.js';
import { seenBy } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const PAGE = { width: 1200 };
const small = (size: number, text = 'Boats of the day') => ({
  tag: 'p',
  id: 'p',
  box: [0, 0, 300, 20] as const,
  style: { 'font-size': `${size}px` },
  lines: [{ box: [0, 0, 120, Math.round(size * 1.15)] as const, text }],
});

test('text under 12 px, as it is shown', () => {
  expect(seenBy(smallText, PAGE, [small(10)])).toEqual(['#p y 2']);
  expect(seenBy(smallText, PAGE, [small(12)])).toEqual([]);
  expect(seenBy(smallText, { width: 320, scale: 1.25 }, [small(10)])).toEqual([]);
});

test('marks and what stands raised may be small', () => {
  expect(seenBy(smallText, PAGE, [small(10, '12')])).toEqual([]);
  const raised = { ...small(9), tag: 'sup', style: { 'font-size': '9px', display: 'inline' } };
  expect(seenBy(smallText, PAGE, [{ tag: 'div', box: [0, 0, 300, 20], children: [raised] }])).toEqual([]);
});

test('the element where the size is set is at fault', () => {
  const inner = { ...small(10), id: 'inner' };
  const outer = { tag: 'div', id: 'outer', box: [0, 0, 300, 20] as const, style: { 'font-size': '10px' } };
  expect(seenBy(smallText, PAGE, [{ ...outer, children: [inner] }])).toEqual(['#outer y 2']);
});

const rows = (widths: readonly number[], advance = 24) => ({
  tag: 'p',
  id: 'p',
  box: [0, 0, 1200, widths.length * advance] as const,
  lines: widths.map((width, i) => ({ box: [0, i * advance, width, 19] as const, text: 'Past the quay' })),
});

test('three rows of which two hold over a hundred letters', () => {
  expect(seenBy(longLines, PAGE, [rows([1000, 1000, 400])])).toEqual(['#p']);
  expect(seenBy(longLines, PAGE, [rows([700, 700, 400])])).toEqual([]);
  expect(seenBy(longLines, PAGE, [rows([1000, 400])])).toEqual([]);
});

test('the columns of a text are not one long line', () => {
  const lines = [0, 20, 40].flatMap((y) => [
    { box: [0, y, 480, 18] as const, text: 'left' },
    { box: [504, y, 480, 18] as const, text: 'right' },
  ]);
  expect(seenBy(longLines, PAGE, [{ tag: 'p', id: 'p', box: [0, 0, 984, 60], lines }])).toEqual([]);
});

test('lines that reach into one another are tight, before they lie on one another', () => {
  expect(seenBy(tightLines, PAGE, [rows([200, 200], 12)])).toEqual(['#p y 1']);
  expect(seenBy(textOverlap, PAGE, [rows([200, 200], 12)])).toEqual([]);
  expect(seenBy(tightLines, PAGE, [rows([200, 200], 6)])).toEqual([]);
  expect(seenBy(textOverlap, PAGE, [rows([200, 200], 6)])).toEqual(['#p y 6']);
  expect(seenBy(tightLines, PAGE, [rows([200, 200], 16)])).toEqual([]);
});

test('capitals need no room for descenders', () => {
  const heading = { ...rows([200, 200], 12), style: { 'text-transform': 'uppercase' } };
  expect(seenBy(tightLines, PAGE, [heading])).toEqual([]);
});

describe('words in more rows than there are of them are broken', () => {
  const broken = (says: string, count: number, more: Partial<Node> = {}) =>
    seenBy(brokenWords, PAGE, [
      {
        tag: 'p',
        id: 'p',
        box: [0, 0, 20, 24 * count],
        says,
        lines: Array.from({ length: count }, (_, i) => ({ box: [0, 24 * i, 16, 19] as const, text: says })),
        ...more,
      },
    ]);
  test.each<[string, number]>([
    ['Crossings', 5],
    ['Winter crossings', 4],
    ['Überfahrten', 4],
  ])('%s in %d rows', (says, count) => {
    expect(broken(says, count)).toEqual(['#p']);
  });
  test.each<[string, readonly string[]]>([
    ['as many rows as words', broken('Boats of the day', 4)],
    ['two rows', broken('Crossings', 2)],
    ['parted at a hyphen', broken('on-board-tea', 3)],
    ['a long address', broken('https://isles.example/crossings/evening', 3)],
    ['a script without spaces', broken('渡し船の時刻表', 4)],
    ['letter under letter on purpose', broken('SALE', 4, { style: { width: '16px' } })],
    ['of a length that is not all known', broken('word '.repeat(120), 400)],
  ])('not %s', (_, found) => {
    expect(found).toEqual([]);
  });
});
