import { sceneOf } from '../../../src/core/layout/scene.js';
import { collapsedScrollers } from '../../../src/core/sightings/collapsed-scrollers.js';
import { line, renderOf } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const COLUMN = { display: 'flex', 'flex-direction': 'column' };
/** A head and a foot in a box 200 px high, and a list that gets what they leave. */
const panel = (left: number, style: Readonly<Record<string, string>> = COLUMN, head = 100): Node => ({
  tag: 'div',
  box: [0, 0, 300, 200],
  style,
  children: [
    { tag: 'h2', box: [0, 0, 300, head] },
    {
      tag: 'ul',
      box: [0, 100, 300, left],
      style: { 'overflow-x': 'auto', 'overflow-y': 'auto' },
      scroll: [300, left, 300, 90],
      children: [{ tag: 'li', box: [0, 100, 300, 90], lines: [line(0, 100, 200, 'Ember Rock')] }],
    },
    { tag: 'p', box: [0, 100 + left, 300, 100 - left] },
  ],
});

const found = (node: Node) => {
  const render = renderOf({ width: 400 }, [node]);
  return collapsedScrollers(sceneOf(render.view), render).map(({ message }) => message);
};

test('a list of which its neighbours leave less than a line', () => {
  const told = (px: number) =>
    `Has ${px} px of height left, too little to read the text “Ember Rock” in by scrolling, on a 400 px wide screen.`;
  expect(found(panel(4))).toEqual([told(4)]);
  expect(found(panel(0, { display: 'grid' }))).toEqual([told(0)]);
});

test.each<[string, Node]>([
  ['one with a line to read', panel(24)],
  ['one that is closed in a box with room', panel(0, COLUMN, 20)],
  ['one in a row', panel(4, { display: 'flex', 'flex-direction': 'row' })],
])('%s: not told', (_, node) => {
  expect(found(node)).toEqual([]);
});
