import { boxOverflow } from '../../../src/core/rules/overflow/box-overflow.js';
import { line, renderOf } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const DARK = { 'background-color': 'rgb(20, 40, 60)' };
const LIGHT = { color: 'rgb(255, 255, 255)' };
const PAGE = { width: 400, height: 800 };

const bar = (
  y: number,
  style: Readonly<Record<string, string>> = LIGHT,
  words: Partial<Node> = {},
): Node => ({
  tag: 'nav',
  id: 'bar',
  box: [0, 0, 400, 60],
  style: DARK,
  children: [
    {
      tag: 'p',
      id: 'words',
      box: [10, y, 200, 24],
      style: { position: 'absolute', top: `${y}px`, ...style },
      lines: [line(10, y, 120, 'Boats of the day')],
      ...words,
    },
  ],
});
const told = (...nodes: readonly Node[]) =>
  boxOverflow
    .check(renderOf(PAGE, nodes))
    .map(({ severity, message }) => `${severity ?? 'warning'} ${message}`);

test('words that were moved off their ground onto their own colour', () => {
  expect(told(bar(100))).toEqual([
    "error The text “Boats of the day” has left the ground of nav#bar and can't be seen on what it lies on, on a 400 px wide screen.",
  ]);
  expect(told(bar(20))).toEqual([]);
  expect(told(bar(100, { color: 'rgb(200, 40, 0)' }))).toEqual([]);
});

test('words on another ground, over a picture, or on a ground of their own', () => {
  const under = (more: Partial<Node>): Node => ({ tag: 'div', box: [0, 60, 400, 200], style: DARK, ...more });
  expect(told(under({}), bar(100))).toEqual([]);
  expect(told(under({ tag: 'svg', style: {} }), bar(100))).toEqual([]);
  expect(told(under({ style: { 'background-image': 'url("sea.webp")' } }), bar(100))).toEqual([]);
  expect(told(bar(100, { ...LIGHT, ...DARK }))).toEqual([]);
});

test('words that run out of their box are an error where they can no longer be seen', () => {
  const card = (color: string): Node => ({
    tag: 'div',
    box: [10, 10, 200, 30],
    style: { ...DARK, color },
    lines: [line(20, 14, 150, 'Boats of the day'), line(20, 52, 150, 'Boats of the day')],
  });
  expect(told(card('rgb(255, 255, 255)')).map((text) => text.split(' ')[0])).toEqual(['error']);
  expect(told(card('rgb(250, 120, 60)')).map((text) => text.split(' ')[0])).toEqual(['warning']);
});
