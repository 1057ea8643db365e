import { FLAG_CONTROL, FLAG_FIELD, FLAG_PICTURE, FLAG_REPLACED } from '../../../src/core/layout/snapshot.js';
import { controlClipped } from '../../../src/core/rules/clipped/control-clipped.js';
import { line, seenBy } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const ROW = { display: 'flex', 'flex-direction': 'row' };
const words = (width: number): Node => ({ tag: 'p', box: [10, 0, width, 24], lines: [line(10, 0, width)] });
const icon = (width: number, style: Readonly<Record<string, string>> = { width: '32px' }): Node => ({
  tag: 'svg',
  id: 'icon',
  box: [0, 0, width, 32],
  flags: FLAG_PICTURE | FLAG_REPLACED,
  style,
});
const seen = (row: Partial<Node>, ...children: readonly Node[]) =>
  seenBy(controlClipped, { width: 400 }, [
    { tag: 'div', box: [0, 0, 200, 32], style: ROW, ...row, children },
  ]);

test('a picture that the words beside it leave a quarter of its width or less', () => {
  expect(seen({}, icon(5), words(180))).toEqual(['#icon x 27']);
  expect(seen({}, icon(0), words(190))).toEqual(['#icon x 32']);
  expect(seen({}, icon(20), words(170))).toEqual([]);
  expect(seen({}, icon(6, { 'flex-basis': '40px' }), words(180))).toEqual(['#icon x 34']);
});

test('what may not shrink, asks for as little, or stands in no row, or alone, was made so', () => {
  expect(seen({}, icon(5, { width: '32px', 'flex-shrink': '0' }), words(180))).toEqual([]);
  expect(seen({}, icon(5, { width: '5px' }), words(180))).toEqual([]);
  expect(seen({ style: { display: 'block' } }, icon(5), words(180))).toEqual([]);
  expect(seen({ style: { ...ROW, 'flex-direction': 'column' } }, icon(5), words(180))).toEqual([]);
  expect(seen({}, icon(5))).toEqual([]);
});

test('a field that gets what is left, which is nothing', () => {
  const field = (style: Readonly<Record<string, string>>): Node => ({
    tag: 'input',
    id: 'field',
    box: [190, 0, 6, 24],
    padding: [1, 2, 1, 2],
    border: [1, 1, 1, 1],
    flags: FLAG_CONTROL | FLAG_FIELD | FLAG_REPLACED,
    style,
  });
  expect(seen({}, words(180), field({ 'flex-basis': '0%', 'flex-grow': '1' }))).toEqual(['#field x 0']);
  expect(seen({}, words(180), field({ width: '0px' }))).toEqual([]);
});
