import { boxOverflow } from '../../../src/core/rules/overflow/box-overflow.js';
import { CARD, line, renderOf, seenBy, WHITE } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const WIDE = { width: 400, height: 800 };

test('text that runs out of the side of a drawn box', () => {
  const text = { tag: 'p', id: 'p', box: [20, 20, 100, 20] as const, lines: [line(20, 20, 180)] };
  expect(
    seenBy(boxOverflow, WIDE, [
      { tag: 'div', id: 'card', box: [10, 10, 120, 60], style: CARD, children: [text] },
    ]),
  ).toEqual(['#p x 70']);
});

test('text that runs out below a box of fixed height: the box is at fault', () => {
  const lines = [line(20, 12, 80), line(20, 32, 80), line(20, 52, 80)];
  const chip = {
    tag: 'a',
    id: 'chip',
    box: [10, 10, 120, 30] as const,
    style: { ...CARD, height: '30px' },
    lines,
  };
  expect(seenBy(boxOverflow, WIDE, [chip])).toEqual(['#chip y 27']);
});

test('words that run out of a rounded corner, at the height of their line', () => {
  const seal = (corners: string, width: number, style: Record<string, string> = {}) =>
    seenBy(boxOverflow, WIDE, [
      {
        tag: 'b',
        id: 'seal',
        box: [100, 100, 100, 100],
        style: { ...CARD, ...style },
        corners,
        lines: [line(150 - width / 2, 104, width), line(110, 140, 80)],
      },
    ]);
  const round = '50px 50px 50px 50px';
  // A quarter down the first line's letters the circle is some 61 px wide.
  expect(seal(round, 84)).toEqual(['#seal x 11']);
  expect(seal(round, 50)).toEqual([]);
  expect(seal('9px 9px 9px 9px', 84)).toEqual([]);
  expect(seal('50% 50% 50% 50%', 84)).toEqual(['#seal x 11']);
  // What a corner cuts off is lost, and told as that.
  expect(seal(round, 84, { 'overflow-x': 'hidden', 'overflow-y': 'hidden' })).toEqual([]);
});

test('so little that it may be meant: of both sides together', () => {
  const isMild = (x: number, width: number) =>
    boxOverflow
      .check(
        renderOf(WIDE, [
          { tag: 'b', id: 'seal', box: [100, 100, 100, 40], style: CARD, lines: [line(x, 110, width)] },
        ]),
      )
      .map(({ mild }) => mild);
  expect(isMild(110, 94)).toEqual([true]);
  expect(isMild(96, 108)).toEqual([false]);
});

test('out of a box that is fixed to the edge of the screen, words are beyond the screen and not beside an edge', () => {
  const bar = (height: number) =>
    seenBy(boxOverflow, WIDE, [
      {
        tag: 'nav',
        id: 'bar',
        box: [0, 0, 100, height],
        style: { ...CARD, position: 'fixed', height: `${height}px` },
        lines: [line(10, 690, 60), line(10, 790, 60)],
      },
    ]);
  expect(bar(800)).toEqual([]);
  expect(bar(700)).toHaveLength(1);
});

test('a box that is not drawn has no edge to run out of', () => {
  expect(
    seenBy(boxOverflow, WIDE, [{ tag: 'div', box: [10, 10, 50, 20], lines: [line(10, 10, 200)] }]),
  ).toEqual([]);
});

test('what was put out of its place on purpose is design', () => {
  const badge = { tag: 'span', id: 'badge', box: [110, 0, 40, 20] as const, lines: [line(112, 0, 36)] };
  for (const style of [{ position: 'absolute' }, { transform: 'matrix(1, 0, 0, 1, 20, 0)' }]) {
    const card = {
      tag: 'div',
      box: [10, 10, 120, 60] as const,
      style: CARD,
      children: [{ ...badge, style: { ...style, ...WHITE } }],
    };
    expect(seenBy(boxOverflow, WIDE, [card])).toEqual([]);
  }
});

test('bare words that were moved: an edge through them is no design, a place beside the box is', () => {
  const words = (x: number) => ({
    tag: 'span',
    id: 'words',
    box: [x, 20, 60, 20] as const,
    style: { position: 'absolute' },
    lines: [line(x, 20, 60)],
  });
  const card = (x: number) => ({
    tag: 'div',
    box: [10, 10, 120, 60] as const,
    style: { ...CARD, position: 'relative' },
    children: [words(x)],
  });
  expect(seenBy(boxOverflow, WIDE, [card(100)])).toEqual(['#words x 30']);
  expect(seenBy(boxOverflow, WIDE, [card(128)])).toEqual([]);
  // An edge between the lines of one text parts it as well.
  const lines = (y: number) => ({
    ...card(20),
    children: [{ ...words(20), lines: [line(20, y, 60), line(20, y + 24, 60)] }],
  });
  expect(seenBy(boxOverflow, WIDE, [lines(52)])).toEqual(['#words y 21']);
  expect(seenBy(boxOverflow, WIDE, [lines(80)])).toEqual([]);
  expect(seenBy(boxOverflow, WIDE, [card(150)])).toEqual([]);
});

test('words that their margin pulls out of a card: where an edge runs through them, or nothing is left in it', () => {
  const title: Node = { tag: 'h3', box: [20, 20, 180, 20], lines: [line(20, 20, 100)] };
  const card = (y: number, style: Readonly<Record<string, string>> = {}, more: Node[] = []): Node => ({
    tag: 'div',
    id: 'card',
    box: [10, 10, 200, 60] as const,
    style: CARD,
    children: [
      ...more,
      {
        tag: 'p',
        box: [20, 20, 180, 60] as const,
        style,
        margin: [0, 0, -32, 0] as const,
        lines: [line(20, y, 150)],
      },
    ],
  });
  expect(seenBy(boxOverflow, WIDE, [card(62)])).toEqual(['p y 7']);
  expect(seenBy(boxOverflow, WIDE, [card(76)])).toEqual(['p y 21']);
  expect(seenBy(boxOverflow, WIDE, [card(76, {}, [title])])).toEqual([]);
  expect(seenBy(boxOverflow, WIDE, [card(62, WHITE)])).toEqual([]);
});

/** A drawn card, 200 px wide from 20 on, round something. */
const cardRound = (inner: Node): Node => ({
  tag: 'div',
  id: 'card',
  box: [20, 10, 200, 60],
  style: CARD,
  children: [inner],
});

test('words that stick out of a row with negative gutters are not moved out by it', () => {
  const card = (x: number) =>
    cardRound({
      tag: 'div',
      id: 'row',
      box: [14, 20, 212, 20],
      margin: [0, -15, 0, -15],
      children: [{ tag: 'p', id: 'p', box: [x, 20, 180, 20], lines: [line(x, 20, 150)] }],
    });
  expect(seenBy(boxOverflow, WIDE, [card(18)])).toEqual([]);
  expect(seenBy(boxOverflow, WIDE, [card(2)])).toEqual(['#p x 18']);
});

test('a list that a margin pulls out at one side has the edge of its card run through its words', () => {
  const card = (x: number) =>
    cardRound({
      tag: 'ul',
      id: 'list',
      box: [x, 20, 180, 20],
      margin: [0, 0, 0, x - 40],
      children: [{ tag: 'li', box: [x, 20, 180, 20], lines: [line(x, 20, 150)] }],
    });
  expect(seenBy(boxOverflow, WIDE, [card(22)])).toEqual([]);
  expect(seenBy(boxOverflow, WIDE, [card(6)])).toEqual(['#list x 14']);
});

test('a word that a margin pulls over a line, which is drawn as a low box, has its place there', () => {
  const bar = (margin: readonly [number, number, number, number]): Node => ({
    tag: 'div',
    id: 'bar',
    box: [10, 40, 200, 8],
    style: CARD,
    children: [{ tag: 'span', box: [10, 16, 60, 15], margin, lines: [line(10, 16, 60)] }],
  });
  expect(seenBy(boxOverflow, WIDE, [bar([-24, 0, 0, 0])])).toEqual([]);
  expect(seenBy(boxOverflow, WIDE, [bar([0, 0, -24, 0])])).toHaveLength(1);
});

test('what is above the page is not out of a box that begins there', () => {
  const text = { tag: 'p', box: [20, -12, 100, 20] as const, lines: [line(20, -12, 80)] };
  const band = { tag: 'div', box: [0, 0, 400, 60] as const, style: CARD, children: [text] };
  expect(seenBy(boxOverflow, WIDE, [band])).toEqual([]);
});

test('rounding and the overhang of letters are left alone', () => {
  const card = { tag: 'p', box: [10, 10, 100, 20] as const, style: CARD, lines: [line(10, 10, 101.5)] };
  expect(seenBy(boxOverflow, WIDE, [card])).toEqual([]);
});

test('a line between two parts of a card sticks out of it, though one border draws it', () => {
  const card = (tag: string) => ({
    tag: 'div',
    box: [10, 10, 200, 90] as const,
    style: CARD,
    children: [
      {
        tag,
        id: 'line',
        box: [20, 50, 260, 2] as const,
        border: [2, 0, 0, 0] as const,
        style: { 'border-top-color': 'rgb(0, 0, 0)' },
      },
    ],
  });
  expect(seenBy(boxOverflow, WIDE, [card('hr')])).toEqual(['#line x 70']);
  expect(seenBy(boxOverflow, WIDE, [card('div')])).toEqual([]);
});

test('a bar that is longer than its track sticks out of it, though there is not a word on it', () => {
  const track = (width: number, style = {}) => ({
    tag: 'div',
    id: 'track',
    box: [10, 10, 200, 14] as const,
    style: CARD,
    children: [
      {
        tag: 'i',
        id: 'bar',
        box: [10, 11, width, 12] as const,
        style: { display: 'block', 'background-color': 'rgb(180, 50, 0)', ...style },
      },
    ],
  });
  expect(seenBy(boxOverflow, WIDE, [track(230)])).toEqual(['#bar x 30']);
  // What is a little too long may be a border, and what was moved is meant.
  expect(seenBy(boxOverflow, WIDE, [track(204)])).toEqual([]);
  expect(seenBy(boxOverflow, WIDE, [track(230, { position: 'absolute' })])).toEqual([]);
});

test('a box beside its panel goes on with a row that begins in it; another one was put there', () => {
  const disc = (x: number, style = {}): Node => ({
    tag: 'i',
    id: `at-${x}`,
    box: [x, 20, 30, 30],
    style: { display: 'block', ...WHITE, ...style },
  });
  const tray = (...children: Node[]): Node => ({
    tag: 'div',
    id: 'tray',
    box: [10, 10, 100, 50],
    style: CARD,
    children,
  });
  expect(seenBy(boxOverflow, WIDE, [tray(disc(20), disc(60), disc(120))])).toEqual(['#at-120 x 40']);
  expect(seenBy(boxOverflow, WIDE, [tray(disc(120))])).toEqual([]);
  expect(seenBy(boxOverflow, WIDE, [tray(disc(20), disc(120, { position: 'absolute' }))])).toEqual([]);
});

test('a box too low for its button, unless it waits beside the screen that it is fixed to', () => {
  const panel = (x: number) => {
    const button = { tag: 'a', id: 'button', box: [x, 180, 100, 40] as const, style: CARD };
    const low = { tag: 'aside', id: 'panel', box: [x, 0, 120, 200] as const, children: [button] };
    return seenBy(boxOverflow, WIDE, [{ ...low, style: { ...CARD, position: 'fixed' } }]);
  };
  expect(panel(20)).toEqual(['#button y 20']);
  expect(panel(440)).toEqual([]);
});

describe('what is put along three sides of a bordered box', () => {
  const fill = (box: Node['box'], more: Partial<Node> = {}): Node => ({
    tag: 'i',
    id: 'fill',
    box,
    style: { ...WHITE, position: 'absolute' },
    ...more,
  });
  const scale = (child: Node): Node => ({
    tag: 'div',
    box: [100, 100, 60, 120],
    style: { ...CARD, position: 'relative' },
    border: [2, 2, 2, 2],
    children: [child],
  });

  it('is more than the whole of it past the fourth', () => {
    expect(seenBy(boxOverflow, WIDE, [scale(fill([102, 70, 56, 148]))])).toEqual(['#fill y 30']);
    expect(seenBy(boxOverflow, WIDE, [scale(fill([102, 102, 90, 116]))])).toEqual(['#fill x 32']);
  });

  it.each<[string, Node]>([
    ['a share of it', fill([102, 160, 56, 58])],
    ['beside one of the three', fill([110, 70, 40, 148])],
    ['past two', fill([102, 70, 56, 190])],
    ['a list over its field', fill([102, 102, 56, 200], { lines: [line(104, 230, 40)] })],
    [
      'a shade behind it',
      fill([102, 102, 56, 130], { style: { ...WHITE, position: 'absolute', 'z-index': '-1' } }),
    ],
  ])('is no fault: %s', (_, child) => {
    expect(seenBy(boxOverflow, WIDE, [scale(child)])).toEqual([]);
  });
});

describe('a line at one side of a box that is not drawn otherwise', () => {
  const ruled = (border: readonly [number, number, number, number], height: number): Node => ({
    tag: 'h3',
    id: 'head',
    box: [20, 20, 200, height],
    style: {
      height: `${height}px`,
      'border-bottom-color': 'rgb(90, 90, 90)',
      'border-top-color': 'rgb(90, 90, 90)',
    },
    border,
    lines: [line(24, 28, 120)],
  });

  it('that runs through its words', () => {
    expect(seenBy(boxOverflow, WIDE, [ruled([0, 0, 1, 0], 18)])).toEqual([
      expect.stringMatching(/^#head y /),
    ]);
  });

  it('that is at another side, or keeps clear of them', () => {
    expect(seenBy(boxOverflow, WIDE, [ruled([1, 0, 0, 0], 18)])).toEqual([]);
    expect(seenBy(boxOverflow, WIDE, [ruled([0, 0, 0, 0], 18)])).toEqual([]);
    expect(seenBy(boxOverflow, WIDE, [ruled([0, 0, 1, 0], 28)])).toEqual([]);
    expect(seenBy(boxOverflow, WIDE, [ruled([0, 0, 1, 0], 6)])).toEqual([]);
  });
});

test('a box with a ground of its own in a row that makes up for its gutters sticks out where it sticks out of the row', () => {
  const told = (box: Node['box'], margin: Node['margin'] = [0, -12, 0, -12]) => {
    const fill: Node = { tag: 'div', id: 'fill', box, style: { 'background-color': 'rgb(200, 220, 240)' } };
    const column: Node = { tag: 'div', box: [22, 22, 236, 80], children: [fill] };
    const row: Node = { tag: 'div', box: [10, 22, 260, 80], margin, children: [column] };
    return seenBy(boxOverflow, WIDE, [{ tag: 'div', box: [10, 10, 248, 104], style: CARD, children: [row] }]);
  };
  expect(told([22, 22, 300, 40])).toEqual(['#fill x 64']);
  expect(told([22, 22, 248, 40])).toEqual([]);
  expect(told([22, 22, 200, 130])).toEqual(['#fill y 38']);
  // Pulled up as well, it was put there.
  expect(told([22, 22, 300, 40], [-8, -12, 0, -12])).toEqual([]);
});

test('what is before the beginning of the page is out of reach, and out of no box', () => {
  const pulled = (x: number, direction: 'ltr' | 'rtl') =>
    seenBy(boxOverflow, { ...WIDE, direction }, [
      {
        tag: 'header',
        box: [0, 0, 300, 60],
        style: CARD,
        children: [{ tag: 'b', id: 'name', box: [x, 10, 100, 20], lines: [line(x, 10, 100)] }],
      },
    ]);
  expect(pulled(-40, 'ltr')).toEqual([]);
  expect(pulled(-40, 'rtl')).toEqual(['#name x 40']);
});

test('what a column of a grid was made too wide by is at fault for all that stands in it', () => {
  const NOWRAP = { display: 'flex', 'flex-direction': 'row', 'flex-wrap': 'nowrap' };
  const name = (x: number, width: number): Node => ({
    tag: 'b',
    box: [x, 20, width, 20],
    style: { 'flex-shrink': '0' },
    lines: [{ box: [x, 20, width, 20], unbreakable: true }],
  });
  const card = (row: Node): string[] =>
    seenBy(boxOverflow, WIDE, [
      {
        tag: 'div',
        box: [10, 10, 120, 80],
        style: { ...CARD, display: 'grid' },
        children: [
          row,
          { tag: 'p', id: 'words', box: [20, 50, 180, 20], lines: [line(20, 50, 178), line(20, 70, 60)] },
        ],
      },
    ]);
  const row = { tag: 'div', id: 'row', box: [20, 20, 180, 20] as const };
  expect(card({ ...row, style: NOWRAP, children: [name(20, 90), name(110, 90)] })).toEqual(['#row x 70']);
  // Where nothing else in the column needs the room, it is the words themselves.
  expect(card({ ...row, children: [] })).toEqual(['#words x 68']);
});

test('what is widest in a row pushes the others out, unless the row has a width of its own', () => {
  const strip = (width: string): string[] =>
    seenBy(boxOverflow, WIDE, [
      {
        tag: 'p',
        id: 'strip',
        box: [10, 10, 180, 40],
        style: { ...CARD, display: 'flex', 'flex-direction': 'row', 'flex-wrap': 'nowrap', width },
        children: [
          {
            tag: 'b',
            id: 'wide',
            box: [10, 10, 130, 40],
            lines: [{ ...line(10, 20, 130), unbreakable: true }],
          },
          { tag: 's', box: [150, 10, 70, 40], lines: [line(150, 20, 70)] },
        ],
      },
    ]);
  expect(strip('180px')).toEqual(['s x 30']);
  expect(strip('auto')).toEqual(['#wide x 30']);
});
