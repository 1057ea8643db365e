import { FLAG_PICTURE, FLAG_REPLACED } from '../../../src/core/layout/snapshot.js';
import { boxOverflow } from '../../../src/core/rules/overflow/box-overflow.js';
import { covered } from '../../../src/core/rules/overlap/covered.js';
import { CARD, line, renderOf } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

/** An item at 100 px with its bullet, number or sign so far before it. */
const item = (y: number, text = '•', tag = '::marker', from = 83): Node => ({
  tag: 'li',
  box: [100, y, 200, 24],
  lines: [line(100, y, 120)],
  children: [{ tag, box: [from, y + 9, 5, 5], lines: [{ box: [from, y + 9, 5, 5], text }] }],
});
const list = (...children: readonly Node[]): Node => ({
  tag: 'ul',
  id: 'list',
  box: [100, 0, 200, 60],
  children,
});
const picture: Node = {
  tag: 'img',
  id: 'pier',
  box: [0, 0, 95, 90],
  flags: FLAG_PICTURE | FLAG_REPLACED,
  style: { float: 'left' },
};
const told = (rule: typeof covered, ...nodes: readonly Node[]) =>
  rule
    .check(renderOf({ width: 400, height: 800 }, nodes))
    .map(({ severity, message }) => `${severity} ${message}`);

test('bullets and numbers on a picture are one finding of their list', () => {
  expect(told(covered, picture, list(item(0), item(24)))).toEqual([
    'warning The bullet “•” and 1 more lie on img#pier, on a 400 px wide screen.',
  ]);
  expect(told(covered, picture, list(item(0, '1.')))).toEqual([
    'warning The text “1.” lies on img#pier, on a 400 px wide screen.',
  ]);
});

test('beside it, or where something else stands before an item, nothing is told', () => {
  expect(told(covered, { ...picture, box: [0, 0, 84, 90] }, list(item(0)))).toEqual([]);
  expect(told(covered, { ...picture, style: {} }, list(item(0)))).toEqual([]);
  expect(told(covered, picture, list(item(0, '•', '::before')))).toEqual([]);
});

test('bullets out of their card are told, and as no more than ugly', () => {
  const card = (...children: readonly Node[]): Node => ({
    tag: 'div',
    id: 'card',
    box: [92, 0, 220, 80],
    style: CARD,
    children: [list(...children)],
  });
  expect(told(boxOverflow, card(item(0)))).toEqual([
    'undefined “•” runs 9 px out of the left side of the box div#card that is drawn round it, on a 400 px wide screen.',
  ]);
  expect(told(boxOverflow, card(item(0, '•', '::marker', 94)))).toEqual([]);
});

test('out of the box of their own item numbers and bullets hang by design', () => {
  const striped = (text: string): Node => ({ ...item(0, text), style: CARD });
  expect(told(boxOverflow, list(striped('7.'), item(24)))).toEqual([]);
  expect(told(boxOverflow, { ...list(striped('7.')), style: CARD })).toHaveLength(1);
});
