import { sceneOf } from '../../../src/core/layout/scene.js';
import { FLAG_CONTROL } from '../../../src/core/layout/snapshot.js';
import { cutBoxes } from '../../../src/core/sightings/cut-boxes.js';
import { line, renderOf } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const BORDER = {
  'border-top-color': 'rgb(0, 0, 0)',
  'border-right-color': 'rgb(0, 0, 0)',
  'border-bottom-color': 'rgb(0, 0, 0)',
  'border-left-color': 'rgb(0, 0, 0)',
};
const card = (more: Partial<Node> = {}): Node => ({
  tag: 'div',
  id: 'card',
  box: [0, 0, 340, 100],
  border: [2, 2, 2, 2],
  style: BORDER,
  lines: [line(10, 10, 200)],
  ...more,
});
/** A window of 300 × 90 px, and what stands in it. */
const told = (
  inner: Node,
  style: Node['style'] = { 'overflow-x': 'hidden', 'overflow-y': 'hidden' },
  height = 200,
) => {
  const render = renderOf({ width: 400 }, [
    { tag: 'div', id: 'window', box: [0, 0, 300, height], style, children: [inner] },
  ]);
  return cutBoxes(sceneOf(render.view), render).map(({ message }) => message);
};

test('a card whose right or lower edge is gone, though its words are not', () => {
  expect(told(card())).toEqual([
    'Its edge is cut off: it reaches 40 px past the right side of div#window, on a 400 px wide screen.',
  ]);
  expect(told(card({ box: [0, 0, 280, 120] }), undefined, 90)).toEqual([
    'Its edge is cut off: it reaches 30 px past the bottom of div#window, on a 400 px wide screen.',
  ]);
});

test('the table is at fault, and not its last cell', () => {
  const cell = card({ id: 'cell', box: [200, 0, 140, 40], lines: [line(210, 10, 40)] });
  const table: Node = { tag: 'table', id: 'table', box: [0, 0, 340, 40], children: [cell] };
  const render = renderOf({ width: 400 }, [
    {
      tag: 'div',
      box: [0, 0, 300, 200],
      style: { 'overflow-x': 'hidden', 'overflow-y': 'hidden' },
      children: [table],
    },
  ]);
  const [found] = cutBoxes(sceneOf(render.view), render);
  expect(render.view.id(found!.node)).toBe('table');
});

test.each<[string, string[]]>([
  ['words are gone as well: they are told of', told(card({ lines: [line(10, 10, 320)] }))],
  ['a part that scrolls', told(card(), { 'overflow-x': 'auto', 'overflow-y': 'auto' })],
  ['no border at that side', told(card({ border: [2, 0, 2, 2] }))],
  ['more than half of it gone', told(card({ box: [200, 0, 340, 100], lines: [line(210, 10, 40)] }))],
  ['no words in it', told(card({ lines: [] }))],
  ['a control', told(card({ flags: FLAG_CONTROL }))],
  ['moved there', told(card({ style: { ...BORDER, position: 'absolute' } }))],
  [
    'a tab on the edge of its row',
    told(card({ box: [0, 0, 80, 40], lines: [line(10, 10, 40)] }), undefined, 30),
  ],
])('%s: not told', (_, found) => {
  expect(found).toEqual([]);
});
