import { rowsOf } from '../../../src/core/layout/rows.js';
import { viewOf, type Node } from '../../support/snapshot.js';

/** Of a container of 700 px and three boxes in a row of it, with 10 px between them, the room that is left. */
function roomIn(style: Record<string, string>, width: number) {
  const box = (i: number): Node => ({ tag: 'div', box: [i * (width + 10), 0, width, 40] });
  const row: Node = { tag: 'div', id: 'row', box: [0, 0, 700, 40], style, children: [0, 1, 2].map(box) };
  const view = viewOf({ width: 800 }, [row]);
  const found = rowsOf(
    view,
    2,
    Int32Array.from({ length: view.count }, (_, i) => i),
  );
  expect(found.rows).toEqual([3]);
  return found.room;
}

test('of a row, room is what its boxes leave', () => {
  expect(roomIn({ display: 'flex' }, 200)).toEqual([80]);
  expect(roomIn({ display: 'grid', 'grid-template-columns': '1fr 1fr 1fr' }, 680 / 3)).toEqual([0]);
});

test.each([
  ['repeat(auto-fit, minmax(200px, 1fr))', 80],
  ['repeat(auto-fill, minmax(min(100%, 192px), 1fr))', 104],
  ['repeat(auto-fill, minmax(150px, 210px))', 50],
  ['repeat(auto-fit, 180px)', 140],
  // No length at all, or more than one track.
  ['repeat(auto-fit, minmax(min-content, 1fr))', 0],
  ['80px repeat(auto-fit, minmax(200px, 1fr))', 0],
])(
  'columns that fill a grid as often as there is room (%s) leave what they don’t ask for',
  (columns, room) => {
    const [left] = roomIn({ display: 'grid', 'grid-template-columns': columns }, 680 / 3);
    expect(left).toBeCloseTo(room, 6);
  },
);
