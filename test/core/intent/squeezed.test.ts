import { isSqueezedOut } from '../../../src/core/intent/squeezed.js';
import { FLAG_TEXT } from '../../../src/core/layout/snapshot.js';
import { viewOf, type Node } from '../../support/snapshot.js';

type Style = Readonly<Record<string, string>>;

const ITEM: Style = { width: 'auto', 'flex-basis': '0%' };
const beside = (width: number, flags = FLAG_TEXT): Node => ({ tag: 'b', box: [0, 0, width, 24], flags });
/** A row, and in it an element without any width beside another one. */
const isLost = (style: Style, other: Node = beside(160), around: Style = ROW) => {
  const item: Node = { tag: 'span', id: 'x', box: [160, 0, 0, 24], style };
  const view = viewOf({ width: 400 }, [
    { tag: 'div', box: [0, 0, 160, 24], style: around, children: [item, other] },
  ]);
  return isSqueezedOut(
    view,
    Array.from({ length: view.count }, (_, i) => i).find((i) => view.id(i) === 'x')!,
  );
};
const ROW: Style = { display: 'flex', 'flex-direction': 'row' };

test('an item of a row of which others leave nothing', () => {
  expect(isLost(ITEM)).toBe(true);
  expect(isLost({ width: 'auto', 'flex-basis': 'auto' })).toBe(true);
  expect(isLost({ width: '120px', 'flex-basis': 'auto' })).toBe(true);
});

test.each<[string, boolean]>([
  ['closed by its width', isLost({ width: '0px', 'flex-basis': 'auto' })],
  ['closed by its greatest width', isLost({ ...ITEM, 'max-width': '0px' })],
  ['closed by its basis', isLost({ width: 'auto', 'flex-basis': '0px' })],
  ['out of the flow', isLost({ ...ITEM, position: 'absolute' })],
  ['beside a sign, in a narrow bar', isLost(ITEM, beside(24, 0))],
  ['in no row', isLost(ITEM, beside(160), { display: 'block' })],
  ['in a column, whose height it has', isLost(ITEM, beside(160), { ...ROW, 'flex-direction': 'column' })],
])('%s: not squeezed out', (_, found) => {
  expect(found).toBe(false);
});

test('an item that grows from nothing takes what is left, and nothing is', () => {
  expect(isLost({ width: 'auto', 'flex-basis': '0px', 'flex-grow': '1' })).toBe(true);
  expect(isLost({ width: '0px', 'flex-basis': '0px', 'flex-grow': '1' })).toBe(false);
});

test.each<[string, string, boolean]>([
  ['its share of what is left', '160px minmax(0px, 1fr)', true],
  ['its share, as long as its words let it', '160px 1fr', true],
  ['no share', '1fr 0fr', false],
  ['no share, however written', '1fr minmax(0px, 0fr)', false],
  ['a track of nothing', '1fr 0px', false],
  ['a track of a part of a px', '160px 0.5fr', true],
  ['tracks of their own', '160px 240px', false],
])('in a grid, %s: %s', (_, tracks, expected) => {
  expect(isLost({ width: 'auto' }, beside(160), { display: 'grid', 'grid-template-columns': tracks })).toBe(
    expected,
  );
});

test('a share of the container less more than that, and a cell of a table without a width of its own', () => {
  expect(isLost({ width: 'calc(100% - 330px)' }, beside(160), { display: 'block' })).toBe(true);
  expect(isLost({ width: 'auto', display: 'table-cell' }, beside(160), { display: 'table-row' })).toBe(true);
  expect(isLost({ width: '0px', display: 'table-cell' }, beside(160), { display: 'table-row' })).toBe(false);
});
