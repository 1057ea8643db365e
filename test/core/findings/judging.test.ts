import fc from 'fast-check';
import { mergeAcrossPages } from '../../../src/core/findings/across-pages.js';
import { defectKey, pathIn } from '../../../src/core/findings/judge.js';
import type { Finding } from '../../../src/core/findings/finding.js';
import { findingsOfPage } from '../../../src/core/findings/group.js';
import { applyWaivers } from '../../../src/core/findings/waivers.js';
import { FLAG_CONTROL, FLAG_REPLACED } from '../../../src/core/layout/snapshot.js';
import { RULES } from '../../../src/core/rules/index.js';
import { CARD, line, renderOf } from '../../support/render.js';
import type { Node, PageOptions } from '../../support/snapshot.js';

/** A card of a hundred px with a text of some width in it, `count` of them side by side or below one another. */
const cards = (widths: readonly number[], dx = 0, dy = 0): Node[] =>
  widths.map((width, i) => ({
    tag: 'div',
    class: `card-${i}`,
    box: [20 + dx, 20 + 60 * i + dy, 100, 40],
    style: CARD,
    children: [
      { tag: 'p', box: [22 + dx, 22 + 60 * i + dy, 90, 20], lines: [line(22 + dx, 22 + 60 * i + dy, width)] },
    ],
  }));

const PAGE = { width: 1200, height: 900 };
const found = (children: readonly Node[], page: PageOptions = PAGE) =>
  findingsOfPage('home', [renderOf(page, children)], RULES);

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

test('settings: off, another severity, a higher threshold, and elements that are taken otherwise', () => {
  const judged = (settings: object, options = {}) =>
    findingsOfPage('home', [renderOf({ ...PAGE, ...options }, cards([180, 120]))], RULES, {
      settings: { 'box-overflow': { elements: [], ...settings } },
    }).map(({ severity, seen }) => `${severity} ${seen[0]!.by!.px}`);
  expect(judged({})).toEqual(['warning 82', 'warning 22']);
  expect(judged({ severity: 'off' })).toEqual([]);
  expect(judged({ severity: 'error', leastPx: 50 })).toEqual(['error 82']);
  // The first card and what is in it: rows 2 and 3 of html, body, div, p.
  const matches = [{ selector: '.card-0', nodes: [2] }];
  expect(judged({ elements: [{ selector: '.card-0', severity: 'off' }] }, { matches })).toEqual([
    'warning 22',
  ]);
  expect(judged({}, { allowed: [{ node: 2, rules: 'box-overflow' }] })).toEqual(['warning 22']);
  expect(judged({}, { allowed: [{ node: 2, rules: 'covered' }] })).toHaveLength(2);
});

test('waivers accept, expire and go unused', () => {
  const [finding] = found(cards([180]));
  const waiver = { reason: 'The new cards come in spring.', who: 'Marit', until: '2026-12-31' };
  const { waived, uses } = applyWaivers(
    [finding!],
    [
      { ...waiver, finding: finding!.id },
      { ...waiver, rule: 'covered' },
      { ...waiver, rule: 'box-overflow', until: '2026-11-22' },
    ],
    '2026-11-23',
  );
  expect([...waived.keys()]).toEqual([finding!.id]);
  expect(uses.map(({ state }) => state)).toEqual(['used', 'unused', 'expired']);
});

test('a defect of a template is one finding with its pages; one of each page is not', () => {
  const make = (page: string, key: string, source: string | null): Finding => ({
    ...found(cards([180]))[0]!,
    id: `${page}-${key}`,
    page,
    pages: [page],
    key,
    cause:
      source === null
        ? null
        : {
            name: 'no-wrap',
            message: '',
            selector: '',
            proven: true,
            declaration: { property: 'white-space', value: 'nowrap', selector: 'p', source },
          },
  });
  const both = (path: string, source: string | null) =>
    ['a', 'b'].map((page) => make(page, defectKey('box-overflow', path), source));
  const merged = mergeAcrossPages([
    ...both('html>body>header.top>nav', null),
    ...both('nav#menu>ul>li', null),
    ...both('sticking html>body>footer', null),
    ...both('html>body>main>p', 'css/site.css:3'),
    ...both('html>body>main>h2', null),
    ...both('main#content>article>header>h3', null),
    ...both('div#navigator>a', null),
  ]);
  expect(merged.map(({ key, pages }) => `${pathIn(key)} ${pages.join('+')}`)).toEqual([
    'html>body>header.top>nav a+b',
    'nav#menu>ul>li a+b',
    'sticking html>body>footer a+b',
    'html>body>main>p a+b',
    'html>body>main>h2 a',
    'html>body>main>h2 b',
    'main#content>article>header>h3 a',
    'main#content>article>header>h3 b',
    'div#navigator>a a',
    'div#navigator>a b',
  ]);
});

test('what several pages miss is one finding where it is the same', () => {
  const of = (page: string, ...details: string[]): Finding => ({
    ...found(cards([180]))[0]!,
    id: `${page}-missing`,
    rule: 'missing-resource',
    key: defectKey('missing-resource', 'missing html'),
    page,
    pages: [page],
    details,
    cause: null,
  });
  const sheet = 'style sheet /site.css: 404';
  const merged = mergeAcrossPages([of('a', sheet), of('b', sheet), of('c', sheet, 'picture /boat.png: 404')]);
  expect(merged.map(({ pages }) => pages)).toEqual([['a', 'b'], ['c']]);
});

test('a template’s finding weighs as much as the gravest of its pages', () => {
  const of = (page: string, severity: Finding['severity']): Finding => ({
    ...found(cards([180]))[0]!,
    id: `${page}-nav`,
    page,
    pages: [page],
    key: defectKey('box-overflow', 'html>body>header>nav'),
    severity,
  });
  const [merged] = mergeAcrossPages([of('a', 'notice'), of('b', 'error'), of('c', 'warning')]);
  expect(merged).toMatchObject({ page: 'a', severity: 'error', pages: ['a', 'b', 'c'] });
});

describe('properties', () => {
  const widths = fc.array(fc.integer({ min: 10, max: 400 }), { minLength: 1, maxLength: 8 });

  test('the order of the renders changes nothing but the order of what is seen', () => {
    fc.assert(
      fc.property(widths, fc.shuffledSubarray([600, 800, 1000, 1200], { minLength: 4 }), (list, order) => {
        const judge = (sizes: readonly number[]) =>
          findingsOfPage(
            'home',
            sizes.map((width) => renderOf({ ...PAGE, width }, cards(list))),
            RULES,
          )
            .map(({ id, seen }) => [id, seen.map(({ profile, by }) => `${profile} ${by!.px}`).sort()])
            .sort();
        expect(judge(order)).toEqual(judge([600, 800, 1000, 1200]));
      }),
      { numRuns: 50 },
    );
  });

  test('moving everything changes nothing but the places', () => {
    fc.assert(
      fc.property(
        widths,
        fc.integer({ min: 0, max: 300 }),
        fc.integer({ min: 0, max: 2000 }),
        (list, dx, dy) => {
          const judge = (children: readonly Node[]) =>
            found(children, { ...PAGE, height: 4000 })
              .map(({ id, seen }) => [id, seen.map(({ by }) => by!.px)])
              .sort();
          expect(judge(cards(list, dx, dy))).toEqual(judge(cards(list)));
        },
      ),
      { numRuns: 50 },
    );
  });

  test('a repaired page never has more findings than its fault', () => {
    fc.assert(
      fc.property(widths, (list) => {
        const repaired = list.map((width) => Math.min(width, 90));
        expect(found(cards(repaired)).length).toBeLessThanOrEqual(found(cards(list)).length);
        expect(found(cards(repaired))).toEqual([]);
      }),
      { numRuns: 50 },
    );
  });
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

test('what is out of the flow and sticks out of the page lies on what stands in its box by itself', () => {
  const notes = (position: string): Node => ({
    tag: 'main',
    box: [0, 0, 1200, 300],
    style: { position: 'relative' },
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
  const told = (position: string) =>
    found([notes(position)], { ...PAGE, scrollWidth: 1210 })
      .map(({ rule }) => rule)
      .sort();
  expect(told('absolute')).toEqual(['covered', 'page-overflow']);
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
