import { sceneOf } from '../../../src/core/layout/scene.js';
import { passingInScrollers } from '../../../src/core/sightings/passing-in-scrollers.js';
import { line, renderOf, WHITE } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

type Style = Readonly<Record<string, string>>;

const cell = (x: number, y: number, style: Style = {}): Node => ({
  tag: 'td',
  box: [x, y, 100, 40],
  style: { display: 'table-cell', ...style },
  lines: [line(x + 8, y + 10, 60, '18.10')],
});
/** A table of `rows` rows of six cells in a window of 300 × 200 px, whose first cells have a style. */
const table = (rows: number, first: (row: number, column: number) => Style): Node => ({
  tag: 'div',
  id: 'window',
  box: [0, 20, 300, 200],
  style: { 'overflow-x': 'auto', 'overflow-y': 'auto' },
  scroll: [300, 200, 600, Math.max(200, 40 * rows)],
  children: [
    {
      tag: 'table',
      box: [0, 20, 600, 40 * rows],
      style: { display: 'table' },
      children: Array.from({ length: rows }, (_, row) => ({
        tag: 'tr',
        box: [0, 20 + 40 * row, 600, 40] as const,
        style: { display: 'table-row' },
        children: [0, 1, 2, 3, 4, 5].map((column) => cell(100 * column, 20 + 40 * row, first(row, column))),
      })),
    },
  ],
});

const found = (node: Node) => {
  const render = renderOf({ width: 400 }, [node]);
  return passingInScrollers(sceneOf(render.view), render).map(({ message }) => message);
};

test('a first column, or a head, without a ground is passed through by what scrolls', () => {
  const column = (style: Style) =>
    table(2, (_, at) => (at === 0 ? { position: 'sticky', left: '0px', ...style } : {}));
  expect(found(column({}))).toEqual([
    'While div#window scrolls, its words pass through the text “18.10” and 1 more, which stay without a ground of their own, on a 400 px wide screen.',
  ]);
  expect(found(column({ ...WHITE }))).toEqual([]);
  expect(found(column({ 'backdrop-filter': 'blur(4px)' }))).toEqual([]);
  const head = (rows: number) => table(rows, (row) => (row === 0 ? { position: 'sticky', top: '0px' } : {}));
  expect(found(head(20))).toHaveLength(1);
  expect(found(head(5))).toEqual([]);
});

test('what does not stick along the axis of the scrolling moves with the rest', () => {
  expect(found(table(2, (_, at) => (at === 0 ? { position: 'sticky', top: '0px' } : {})))).toEqual([]);
});
