import {
  FLAG_ARIA_HIDDEN,
  FLAG_CONTROL,
  FLAG_FIELD,
  FLAG_PAGE_LINK,
  FLAG_TEXT,
} from '../../../src/core/layout/snapshot.js';
import { hoverOnly } from '../../../src/core/rules/touch/hover-only.js';
import { smallTarget } from '../../../src/core/rules/touch/small-target.js';
import { line, PHONE, seenBy } from '../../support/render.js';

const PAGE = { width: 390 };
const button = (id: string, x: number, width = 18, height = 18, more = {}) => ({
  tag: 'button',
  id,
  box: [x, 100, width, height] as const,
  flags: FLAG_CONTROL,
  style: { display: 'inline-block' },
  ...more,
});

test('small controls side by side, on touch screens only; those made alike are one', () => {
  const pair = [button('a', 10), button('b', 30)];
  expect(seenBy(smallTarget, PAGE, pair, PHONE)).toEqual(['#a y 6']);
  expect(seenBy(smallTarget, PAGE, pair)).toEqual([]);
});

test('room around a small control makes up for its size', () => {
  expect(seenBy(smallTarget, PAGE, [button('a', 10), button('b', 40)], PHONE)).toEqual([]);
  // Beside a large one, the circle about the small one must keep clear of its box.
  expect(seenBy(smallTarget, PAGE, [button('a', 10), button('b', 29, 80, 40)], PHONE)).toEqual(['#a y 6']);
  expect(seenBy(smallTarget, PAGE, [button('a', 10), button('b', 34, 80, 40)], PHONE)).toEqual([]);
});

test('marks that are hidden from assistive technology lead to what stands elsewhere', () => {
  const hidden = { flags: FLAG_CONTROL | FLAG_ARIA_HIDDEN };
  const strip = (more: object) => [
    {
      tag: 'div',
      box: [0, 90, 60, 40] as const,
      ...more,
      children: [button('a', 10, 18, 18, more), button('b', 30, 18, 18, more)],
    },
  ];
  expect(seenBy(smallTarget, PAGE, strip({}), PHONE)).toEqual(['#a y 6']);
  expect(seenBy(smallTarget, PAGE, strip(hidden), PHONE)).toEqual([]);
});

test('links in a sentence have the height of its lines', () => {
  const link = (id: string, x: number) => ({
    ...button(id, x, 40, 18),
    tag: 'a',
    style: { display: 'inline' },
  });
  const links = [link('a', 10), link('b', 52)];
  const block = { tag: 'p', box: [0, 90, 390, 40] as const };
  expect(
    seenBy(smallTarget, PAGE, [{ ...block, lines: [line(100, 100, 200)], children: links }], PHONE),
  ).toEqual([]);
  const upright = [link('a', 10), { ...link('b', 10), box: [10, 119, 40, 18] as const }];
  expect(seenBy(smallTarget, PAGE, [{ ...block, children: upright }], PHONE)).toEqual(['#a y 6']);
});

test('a field is as large as it is with its label', () => {
  const field = button('f', 10, 18, 18, { tag: 'input', flags: FLAG_CONTROL | FLAG_FIELD });
  const label = { tag: 'label', box: [32, 95, 100, 30] as const };
  const next = button('n', 10, 18, 18, { box: [10, 130, 18, 18] });
  const page = { ...PAGE, labels: [[2, 3]] as const };
  expect(seenBy(smallTarget, page, [field, label, next], PHONE)).toEqual([]);
  expect(
    seenBy(smallTarget, PAGE, [field, label, { ...next, box: [10, 119, 18, 18] as const }], PHONE),
  ).toEqual(['#f y 6', '#n y 6']);
});

test('what only hovering shows is told on touch screens, with its weight', () => {
  const item = { tag: 'li', id: 'item', box: [10, 10, 80, 30] as const, children: [] };
  const panel = (flags: number) => ({
    tag: 'div',
    id: 'panel',
    box: [0, 0, 0, 0] as const,
    hidden: true,
    flags,
  });
  const page = { ...PAGE, hoverReveals: [[3, 2]] as const };
  expect(seenBy(hoverOnly, page, [item, panel(FLAG_CONTROL)], PHONE)).toEqual(['#panel']);
  expect(seenBy(hoverOnly, page, [item, panel(FLAG_TEXT)], PHONE)).toEqual(['#panel']);
  expect(seenBy(hoverOnly, page, [item, panel(0)], PHONE)).toEqual([]);
  expect(seenBy(hoverOnly, page, [{ ...item, hidden: true }, panel(FLAG_TEXT)], PHONE)).toEqual([]);
  expect(seenBy(hoverOnly, page, [item, panel(FLAG_TEXT)])).toEqual([]);
});

test('what one class hides is one defect, wherever it stands; a sign that leads to its own heading is none', () => {
  const tools = (y: number, part: object = {}) => ({
    tag: 'section',
    id: `part-${y}`,
    box: [0, y, 300, 60] as const,
    children: [{ tag: 'div', class: 'tools', box: [0, y, 60, 20] as const, flags: FLAG_CONTROL, ...part }],
  });
  const page = {
    ...PAGE,
    hoverReveals: [
      [3, 2],
      [5, 4],
    ] as const,
  };
  expect(seenBy(hoverOnly, page, [tools(0), tools(100)], PHONE)).toHaveLength(1);
  const sign = { tag: 'a', flags: FLAG_CONTROL | FLAG_PAGE_LINK, lines: [line(0, 0, 10, '¶')] };
  expect(seenBy(hoverOnly, page, [tools(0, sign), tools(100, sign)], PHONE)).toEqual([]);
  const words = { ...sign, lines: [line(0, 0, 80, 'All fares')] };
  expect(seenBy(hoverOnly, page, [tools(0, words), tools(100, words)], PHONE)).toHaveLength(1);
});
