import { findingsOfPage } from '../../../src/core/findings/group.js';
import { FLAG_CONTROL, FLAG_REPLACED } from '../../../src/core/layout/snapshot.js';
import { RULES } from '../../../src/core/rules/index.js';
import { cards, found, PAGE } from '../../support/cards.js';
import { CARD, line, renderOf } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

test('one defect, one finding: what has run out is not also an overlap, and weighs as much as one', () => {
  const beside: Node = {
    tag: 'p',
    class: 'beside',
    box: [130, 20, 100, 20],
    lines: [line(130, 22, 90, 'Beside it')],
  };
  const told = (children: readonly Node[]) =>
    found(children).map(({ rule, severity }) => `${severity} ${rule}`);
  expect(told([...cards([180]), beside])).toEqual(['error box-overflow']);
  expect(told(cards([180]))).toEqual(['warning box-overflow']);
});

test('of two overlaps of one element, what stays is as grave as the graver', () => {
  /** A tick box and words in each of two labels, the second pulled up onto the first. */
  const label = (y: number, margin: Node['margin']): Node => ({
    tag: 'label',
    class: `at-${y}`,
    box: [10, y, 300, 22],
    ...(margin && { margin }),
    lines: [line(40, y + 3, 120, y === 20 ? 'Single crossing' : 'Return crossing')],
    children: [{ tag: 'input', box: [14, y + 4, 13, 13], flags: FLAG_CONTROL | FLAG_REPLACED }],
  });
  const told = (up: number) =>
    findingsOfPage(
      'home',
      [1200, 800, 400].map((width) =>
        renderOf({ width, height: 900 }, [label(20, undefined), label(42 - up, [-up, 0, 0, 0])]),
      ),
      RULES,
    )
      .filter(({ family }) => family === 'overlap')
      .map(({ severity }) => severity);
  expect(told(13)).toEqual(['error']);
  expect(told(0)).toEqual([]);
});

test('words that are cut off behind their box are told as cut off where more is gone than shows', () => {
  const code = (right: number): Node => ({
    tag: 'div',
    box: [0, 0, right, 100],
    style: { 'overflow-x': 'hidden', 'overflow-y': 'hidden' },
    children: [
      { tag: 'pre', box: [20, 20, 100, 30], style: CARD, lines: [line(24, 24, 300, 'curl the timetable')] },
    ],
  });
  expect(found([code(140)]).map(({ rule }) => rule)).toEqual(['text-clipped']);
  expect(found([code(300)]).map(({ rule }) => rule)).toEqual(['box-overflow']);
});

test('a drawer of which a strip lies on the page is told for what it hides', () => {
  const drawer = (left: number): Node => ({
    tag: 'aside',
    box: [left, 0, 240, 900],
    style: { position: 'fixed', left: `${left}px`, ...CARD, 'z-index': '2' },
    children: [
      {
        tag: 'a',
        box: [left + 20, 20, 200, 40],
        flags: FLAG_CONTROL,
        lines: [line(left + 20, 24, 90, 'Rooms')],
      },
    ],
  });
  const words: Node = { tag: 'p', box: [10, 200, 400, 20], lines: [line(10, 200, 380, 'Boats of the day')] };
  const told = (left: number) =>
    found([drawer(left), words]).map(({ rule, selector }) => `${rule} ${selector}`);
  expect(told(-200)).toEqual(['covered aside']);
  expect(told(-240)).toEqual([]);
});

test('what is out of the flow and sticks out of the page lies on what stands in its box by itself', () => {
  const notes = (position: string, home: string): Node => ({
    tag: 'main',
    box: [0, 0, 1200, 300],
    style: { position: home },
    children: [
      { tag: 'p', box: [900, 20, 200, 20], lines: [line(900, 22, 180, 'Sailings on Sunday')] },
      {
        tag: 'div',
        class: 'aside',
        box: [960, 10, 250, 60],
        style: { position, 'background-color': 'rgb(255, 255, 255)' },
      },
    ],
  });
  const told = (position: string, home = 'relative') =>
    found([notes(position, home)], { ...PAGE, scrollWidth: 1210 })
      .map(({ rule }) => rule)
      .sort();
  expect(told('absolute')).toEqual(['covered', 'page-overflow']);
  // Placed by no element, it belongs on the page.
  expect(told('absolute', 'static')).toEqual(['covered', 'page-overflow']);
  expect(told('relative')).toEqual(['page-overflow']);
});

test('words that run out of their row lie on what stands in the row by itself: that is no consequence', () => {
  const row = (priceAt: number, style: Record<string, string>): Node[] => [
    {
      tag: 'div',
      class: 'row',
      box: [20, 20, 200, 24],
      style: CARD,
      children: [
        { tag: 'span', class: 'name', box: [20, 22, 230, 20], lines: [line(20, 22, 230, 'Long name')] },
        {
          tag: 'b',
          class: 'price',
          box: [priceAt, 22, 40, 20],
          style,
          lines: [line(priceAt, 22, 40, '24.50')],
        },
      ],
    },
  ];
  const told = (children: readonly Node[]) => found(children).map(({ rule }) => rule);
  expect(told(row(170, { position: 'absolute' }))).toEqual(['text-overlap', 'box-overflow']);
  expect(told(row(170, {}))).toEqual(['box-overflow']);
});

test('what reaches out before the beginning of a page that something else makes too wide is a defect of its own', () => {
  const wide: Node = { tag: 'table', class: 'wide', box: [20, 200, 1300, 40], lines: [line(20, 204, 1300)] };
  const moved: Node = {
    tag: 'div',
    class: 'moved',
    box: [-40, 20, 300, 40],
    lines: [line(-30, 24, 200, 'Warning')],
  };
  const told = (children: readonly Node[]) =>
    found([{ tag: 'main', box: [-40, 0, 1220, 300], margin: [0, 0, 0, -60], children: [...children] }], {
      ...PAGE,
      scrollWidth: 1320,
    })
      .map(({ rule }) => rule)
      .sort();
  expect(told([wide])).toEqual(['page-overflow']);
  expect(told([wide, moved])).toEqual(['page-overflow', 'unreachable']);
});

test('what reaches out before the page within what is too wide at its end alone is a defect of its own', () => {
  const window = (x: number): Node => ({
    tag: 'div',
    class: 'window',
    box: [x, 20, 1300 - 2 * x, 200],
    style: CARD,
    children: [
      {
        tag: 'i',
        class: 'hint',
        box: [-60, 40, 160, 24],
        style: { position: 'absolute' },
        lines: [line(-50, 42, 140, 'Sold at the quay')],
      },
    ],
  });
  const told = (x: number) =>
    found([window(x)], { ...PAGE, scrollWidth: 1300 - x })
      .map(({ rule }) => rule)
      .sort();
  expect(told(10)).toEqual(['page-overflow', 'unreachable']);
  // Set from its middle, the window reaches out on both sides.
  expect(told(-80)).toEqual(['page-overflow']);
});

test('what is lost within a box is no consequence of what runs out of it', () => {
  const hero = (top: number): Node[] => [
    {
      tag: 'section',
      class: 'hero',
      box: [0, 0, 600, 100],
      style: CARD,
      children: [{ tag: 'p', box: [20, 20, 400, 96], lines: [20, 44, 68, 92].map((y) => line(20, y, 300)) }],
    },
    {
      tag: 'div',
      class: 'counts',
      box: [20, top, 200, 30],
      margin: [top - 100, 0, 0, 0],
      style: { 'background-color': 'rgb(255, 255, 255)', position: 'relative' },
    },
  ];
  const told = (top: number) => found(hero(top)).map(({ rule }) => rule);
  expect(told(40)).toEqual(['covered', 'box-overflow']);
  expect(told(98)).toEqual(['box-overflow']);
});

test('what is lost at the other end of words that run out of a box is no consequence of that', () => {
  /** Words centred over two discs: the first run out of the panel at its left. */
  const told = (second: number) =>
    found([
      {
        tag: 'section',
        class: 'panel',
        box: [80, 10, 400, 100],
        style: CARD,
        children: [
          { tag: 'i', class: 'one', box: [90, 60, 40, 20], lines: [line(50, 60, 120, 'Choose the week')] },
          {
            tag: 'i',
            class: 'two',
            box: [200, 60, 40, 20],
            lines: [line(second, 60, 120, 'Choose the crew')],
          },
        ],
      },
    ]).map(({ rule }) => rule);
  expect(told(145)).toEqual(['text-overlap', 'box-overflow']);
  expect(told(180)).toEqual(['box-overflow']);
});

test('a box that is too high for the screen that it is fixed to is told as out of reach', () => {
  const rules = (height: number) =>
    found([
      {
        tag: 'div',
        class: 'screen',
        box: [0, 0, 1200, 900],
        style: { position: 'fixed', 'background-color': 'rgba(0, 0, 0, 0.5)' },
        children: [
          {
            tag: 'div',
            class: 'dialog',
            box: [400, (900 - height) / 2, 400, height],
            style: CARD,
            children: [
              {
                tag: 'button',
                flags: FLAG_CONTROL,
                box: [420, (900 + height) / 2 - 60, 100, 40],
                lines: [line(430, (900 + height) / 2 - 50, 80, 'I agree')],
              },
            ],
          },
        ],
      },
    ]).map(({ rule }) => rule);
  expect(rules(800)).toEqual([]);
  expect(rules(1060)).toEqual(['unreachable']);
});

test('what lies over many things lies over some of them whether those ran out of their boxes or not', () => {
  const over = (height: number): Node => ({
    tag: 'div',
    class: 'over',
    box: [60, 10, 160, height],
    style: { position: 'absolute', 'background-color': 'rgb(255, 255, 255)' },
  });
  const told = (...parts: readonly Node[]) =>
    found(parts)
      .map(({ rule }) => rule)
      .sort();
  // Of two cards, the first of which words run out of.
  expect(told(...cards([180, 90]), over(110))).toEqual(['box-overflow', 'covered']);
  expect(told(...cards([180]), over(50))).toEqual(['box-overflow']);
});

describe('on a page that scrolls sideways', () => {
  const SLIM = { width: 360, height: 800 };
  const told = (children: readonly Node[], scrollWidth: number) =>
    found(children, { ...SLIM, scrollWidth }).map(
      ({ rule, selector }) => `${rule} ${selector.split(' ').at(-1)}`,
    );

  test('what happens in a box that is too wide by its own width is told, too', () => {
    const wrapper = (width: string): Node => ({
      tag: 'main',
      box: [0, 0, 868, 200],
      style: { width },
      children: cards([180]),
    });
    expect(told([wrapper('868px')], 868)).toEqual(['page-overflow main', 'box-overflow p']);
    expect(told([wrapper('auto')], 868)).toEqual(['page-overflow main']);
  });

  /** A line that is too long for the page, and words that stand in a box of their own on its beginning. */
  const onIts = (
    display: string,
    turned: Record<string, string> = {},
    long: Record<string, string> = {},
  ): Node => ({
    tag: 'main',
    box: [0, 0, 360, 200],
    style: { display },
    children: [
      { tag: 'p', box: [10, 20, 40, 20], style: turned, lines: [line(10, 22, 120, 'Boats of the day')] },
      {
        tag: 'pre',
        box: [60, 20, 300, 20],
        style: long,
        lines: [line(60, 22, 500, 'curl the whole of the timetable')],
      },
    ],
  });

  test('words that a wider item has left no room are a consequence, those that were turned in a row of their own are not', () => {
    expect(told([onIts('flex')], 560)).toEqual(['page-overflow pre']);
    const turned = { transform: 'matrix(0.9, 0.44, -0.44, 0.9, 0, 0)' };
    expect(told([onIts('block', turned)], 560)).toEqual(['page-overflow pre', 'text-overlap p']);
  });

  test('words that run out of a box which was given its room whatever stands in it took none from others', () => {
    const both = ['page-overflow pre', 'text-overlap p'];
    expect(told([onIts('flex', {}, { 'flex-basis': '0%' })], 560)).toEqual(both);
    expect(told([onIts('flex', {}, { width: '300px' })], 560)).toEqual(both);
  });

  test('items that are given one field of a grid are no consequence of their width', () => {
    const plan = (first: number): Node => ({
      tag: 'div',
      box: [10, 0, 340, 40],
      style: { display: 'grid' },
      children: [
        { tag: 'b', box: [10, 10, first, 20], lines: [line(10, 10, 150, 'Juniper in dock 2')] },
        { tag: 'i', box: [100, 10, 268, 20], lines: [line(100, 10, 268, 'Pilot boat: shaft and bearings')] },
      ],
    });
    expect(told([plan(160)], 368)).toEqual(['page-overflow i', 'text-overlap i']);
    expect(told([plan(86)], 368)).toEqual(['page-overflow i']);
  });

  test('of what is too wide, what a margin or an offset pulls past the beginning is lost for another reason', () => {
    const pre = (x: number, more: Partial<Node>): Node => ({
      tag: 'pre',
      box: [x, 20, 360 - x, 20],
      lines: [line(x, 22, 700, 'curl the whole of the timetable'.repeat(3))],
      ...more,
    });
    const both = ['page-overflow pre', 'unreachable pre'];
    expect(told([pre(-76, { margin: [0, 0, 0, -76] })], 624)).toEqual(both);
    expect(told([pre(-76, { style: { position: 'relative', left: '-76px' } })], 624)).toEqual(both);
    const centred = {
      tag: 'div',
      box: [-80, 20, 520, 20],
      margin: [0, 0, 0, -260],
      lines: [line(-80, 22, 520, 'All boats of all days')],
    } as const;
    expect(told([{ ...centred, style: { position: 'relative', left: '50%' } }], 440)).toEqual([
      'page-overflow div',
    ]);
  });
});
