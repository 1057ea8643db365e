import { sceneOf } from '../../../src/core/layout/scene.js';
import { coveredColumns } from '../../../src/core/sightings/covered-columns.js';
import { line, renderOf, WHITE } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const cell = (x: number, width: number, style: Readonly<Record<string, string>> = {}): Node => ({
  tag: 'td',
  box: [x, 20, width, 40],
  style: { display: 'table-cell', ...style },
  lines: [line(x + 8, 30, Math.min(60, width - 16), '18.10')],
});
const HELD = { ...WHITE, position: 'sticky', left: '0px' };
const table = (
  held: number,
  style: Readonly<Record<string, string>> = HELD,
  scrollWidth = held + 160,
): Node => ({
  tag: 'div',
  id: 'window',
  box: [0, 20, 300, 40],
  style: { 'overflow-x': 'auto', 'overflow-y': 'auto' },
  scroll: [300, 40, scrollWidth, 40],
  children: [cell(0, held, style), cell(held, 80), cell(held + 80, 80)],
});

const found = (...nodes: readonly Node[]) => {
  const render = renderOf({ width: 400 }, nodes);
  return coveredColumns(sceneOf(render.view), render).map(({ message }) => message);
};

test('a column that sticks and is as wide as the window that it sticks in', () => {
  const room = (px: number) =>
    `Stays where it is while div#window scrolls, and leaves ${px} px of its width: the text “18.10” and 1 more are under it or out of sight, on a 400 px wide screen.`;
  expect(found(table(310))).toEqual([room(0)]);
  expect(found(table(270))).toEqual([room(30)]);
});

test.each<[string, Node]>([
  ['one that leaves room for its neighbours', table(150)],
  ['one that scrolls away', table(310, WHITE)],
  ['one that shows what is under it', table(310, { ...HELD, 'background-color': 'rgba(0, 0, 0, 0)' })],
  ['a window that all of it fits into', table(100, HELD, 260)],
])('%s: not told', (_, node) => {
  expect(found(node)).toEqual([]);
});
