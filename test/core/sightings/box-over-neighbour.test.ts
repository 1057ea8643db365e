import { sceneOf } from '../../../src/core/layout/scene.js';
import { boxesOverNeighbours } from '../../../src/core/sightings/box-over-neighbour.js';
import { CARD, renderOf } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const item = (box: Node['box'], style: Readonly<Record<string, string>> = CARD): Node => ({
  tag: 'article',
  class: 'fare',
  box,
  style,
});
const grid = (children: readonly Node[], display = 'grid'): Node => ({
  tag: 'section',
  box: [0, 0, 320, 200],
  style: { display },
  children,
});
const found = (node: Node, told: ReadonlySet<number> = new Set()) => {
  const render = renderOf({ width: 400 }, [node]);
  return boxesOverNeighbours(sceneOf(render.view), render, told).map(({ by, message }) => [by, message]);
};
const over = (px: number) =>
  `Its box runs ${px} px over the rim of the next article.fare, on a 400 px wide screen.`;

test('an item that is wider than its track, or higher than its row, runs over the next one', () => {
  const wide = [item([0, 0, 180, 80]), item([150, 0, 180, 80])];
  expect(found(grid(wide))).toEqual([[{ axis: 'x', px: 30 }, over(30)]]);
  expect(found(grid([item([0, 0, 300, 90]), item([0, 80, 300, 90])]))).toEqual([
    [{ axis: 'y', px: 10 }, over(10)],
  ]);
  // The first item of the grid: html, body and the grid itself stand before it.
  expect(found(grid(wide), new Set([3]))).toEqual([]);
});

test.each<[string, Node]>([
  ['items that touch', grid([item([0, 0, 152, 80]), item([150, 0, 150, 80])])],
  ['items in one place', grid([item([0, 0, 300, 90]), item([0, 0, 300, 90])])],
  ['items that are not drawn', grid([item([0, 0, 180, 80], {}), item([150, 0, 180, 80], {})])],
  [
    'items that were moved over one another',
    grid([
      item([0, 0, 180, 80]),
      item([150, 0, 180, 80], { ...CARD, transform: 'matrix(1, 0, 0, 1, -30, 0)' }),
    ]),
  ],
  ['boxes in a block', grid([item([0, 0, 180, 80]), item([150, 0, 180, 80])], 'block')],
])('%s: not told', (_, node) => {
  expect(found(node)).toEqual([]);
});
