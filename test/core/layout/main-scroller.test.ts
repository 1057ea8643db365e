import { mainScrollerOf } from '../../../src/core/layout/main-scroller.js';
import { pageOverflow } from '../../../src/core/rules/overflow/page-overflow.js';
import { unreachable } from '../../../src/core/rules/clipped/unreachable.js';
import { line, renderOf, seenBy } from '../../support/render.js';
import type { Node, PageOptions } from '../../support/snapshot.js';

/** An application as high as its screen: its document stands still. */
const APP: PageOptions = { width: 400, height: 800 };

/** A part in which 1,600 px are scrolled down, and so many across. */
const main = ({ width = 400, height = 800, across = 400, style = {}, inner = [] as Node[] } = {}): Node => ({
  tag: 'main',
  id: 'main',
  box: [400 - width, 0, width, height],
  style: { 'overflow-x': 'auto', 'overflow-y': 'auto', ...style },
  scroll: [width, height, across, 1600],
  children: inner,
});
const wide = (width: number): Node => ({
  tag: 'div',
  id: 'wide',
  box: [0, 900, width, 40],
  style: { width: `${width}px` },
});
const words: Node = { tag: 'p', box: [0, 20, 400, 20], lines: [line(0, 20, 120)] };
/** The same with less in it than it is high. */
const short = (across: number, inner: Node[]): Node => ({
  ...main({ inner }),
  scroll: [400, 800, across, 800],
});
const found = (page: PageOptions, ...nodes: Node[]) => {
  const { view } = renderOf(page, nodes);
  const at = mainScrollerOf(view);
  return at < 0 ? null : view.id(at);
};

test('the part of an application that scrolls where its document does not', () => {
  expect(found(APP, main())).toBe('main');
  expect(found(APP, main({ width: 300, height: 700 }))).toBe('main');
  expect(found({ ...APP, scrollHeight: 2400 }, main())).toBe(null);
  expect(found(APP, main({ width: 390, height: 300 }))).toBe(null);
  expect(found(APP, main({ style: { 'overflow-x': 'hidden', 'overflow-y': 'hidden' } }))).toBe(null);
  expect(found(APP, short(400, [words]))).toBe('main');
  expect(found(APP, short(400, [{ ...words, box: [0, 0, 400, 800] }]))).toBe(null);
});

test('what is too wide for it has all of it move sideways', () => {
  const app = main({ across: 480, inner: [words, wide(480)] });
  expect(seenBy(pageOverflow, APP, [app])).toEqual(['#wide x 80']);
  expect(pageOverflow.check(renderOf(APP, [app]))[0]!.message).toBe(
    'Sticks out 80 px past the right edge of main#main, 400 px wide, in which the page scrolls, and it scrolls sideways.',
  );
});

test('so it does where all of the application is fixed to the screen', () => {
  const fixed = { position: 'fixed' };
  const app = main({ across: 480, style: fixed, inner: [words, wide(480)] });
  expect(seenBy(pageOverflow, APP, [app])).toEqual(['#wide x 80']);
  const aside = main({ across: 480, style: fixed, inner: [words, { ...wide(480), style: fixed }] });
  expect(seenBy(pageOverflow, APP, [aside])).toEqual([]);
});

test('what a transform moves above its beginning left a hole, and is lost', () => {
  const link: Node = {
    tag: 'a',
    id: 'link',
    box: [20, -100, 200, 30],
    style: { transform: 'matrix(1, 0, 0, 1, 0, -400)' },
    lines: [line(20, -96, 160, 'Book a crossing')],
  };
  expect(seenBy(unreachable, APP, [main({ inner: [words, link] })])).toEqual(['#link y 92']);
  const waiting = { ...link, style: { ...link.style, position: 'absolute' } };
  expect(seenBy(unreachable, APP, [main({ inner: [words, waiting] })])).toEqual([]);
});

test('with less in it than it is high it moves as well', () => {
  const table = { ...wide(480), box: [0, 60, 480, 40] as const };
  expect(seenBy(pageOverflow, APP, [short(480, [words, table])])).toEqual(['#wide x 80']);
});

test('a sheet or a row of columns that is all there is scrolls sideways by itself', () => {
  const sheet = { ...wide(480), lines: [line(0, 900, 480)] };
  expect(seenBy(pageOverflow, APP, [main({ across: 480, inner: [sheet] })])).toEqual([]);
  const column = (x: number): Node => ({
    tag: 'div',
    id: `column-${x}`,
    box: [x, 0, 230, 600],
    style: { width: '230px' },
    lines: [line(x, 0, 90)],
  });
  const board = main({ across: 480, style: { display: 'flex' }, inner: [column(0), column(250)] });
  expect(seenBy(pageOverflow, APP, [board])).toEqual([]);
  const titled = main({
    across: 480,
    inner: [words, { ...board, id: 'board', scroll: undefined, style: { display: 'flex' } }],
  });
  expect(seenBy(pageOverflow, APP, [titled])).toHaveLength(1);
});

test('what fits, or is off by a border, or is cut off at its side, or scrolls in a part of its own', () => {
  expect(seenBy(pageOverflow, APP, [main({ inner: [words, wide(400)] })])).toEqual([]);
  expect(seenBy(pageOverflow, APP, [main({ across: 402, inner: [words, wide(402)] })])).toEqual([]);
  const cut = main({ across: 480, style: { 'overflow-x': 'hidden' }, inner: [words, wide(480)] });
  expect(seenBy(pageOverflow, APP, [cut])).toEqual([]);
  const part: Node = {
    tag: 'div',
    box: [0, 900, 400, 40],
    style: { 'overflow-x': 'auto', 'overflow-y': 'hidden' },
    scroll: [400, 40, 480, 40],
    children: [wide(480)],
  };
  expect(seenBy(pageOverflow, APP, [main({ inner: [words, part] })])).toEqual([]);
});
