import { FLAG_HEADING } from '../../../src/core/layout/snapshot.js';
import { covered } from '../../../src/core/rules/overlap/covered.js';
import { textOverlap } from '../../../src/core/rules/overlap/text-overlap.js';
import { CARD, line, seenBy, WHITE } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const PAGE = { width: 800, height: 600, scrollHeight: 3000 };
const header = (style: Record<string, string> = {}): Node => ({
  tag: 'header',
  id: 'top',
  box: [0, 0, 800, 64],
  style: { ...WHITE, position: 'sticky', top: '0px', 'z-index': '5', ...style },
  lines: [line(10, 20, 120, 'Lantern Isles')],
});
/** A bar in a section from 200 px on. */
const section = (top: string, height = 2000, bar: Partial<Node> = {}): Node => ({
  tag: 'section',
  box: [0, 200, 800, height],
  children: [
    {
      tag: 'div',
      id: 'bar',
      box: [0, 200, 800, 40],
      style: { ...CARD, position: 'sticky', top },
      lines: [line(10, 210, 200, 'Boats of the day')],
      ...bar,
    },
  ],
});

test('a bar that sticks under the header of the site', () => {
  expect(seenBy(covered, PAGE, [header(), section('0px')])).toEqual(['#bar y 12']);
  expect(seenBy(covered, PAGE, [header({ position: 'fixed' }), section('0px')])).toEqual(['#bar y 12']);
});

test('a bar that lies on the header when it sticks', () => {
  expect(seenBy(covered, PAGE, [header({ 'z-index': 'auto' }), section('0px')])).toEqual(['#bar y 12']);
});

test('a bar that sticks below the header, or leaves before it meets it', () => {
  expect(seenBy(covered, PAGE, [header(), section('64px')])).toEqual([]);
  expect(seenBy(covered, PAGE, [header(), section('0px', 60)])).toEqual([]);
});

test('headings of a list that push one another away', () => {
  const heading = (y: number): Node => ({
    tag: 'dt',
    box: [0, y, 800, 40],
    style: { ...CARD, position: 'sticky', top: '0px' },
    lines: [line(10, y + 10, 100, 'Heron')],
  });
  const list: Node = {
    tag: 'dl',
    box: [0, 0, 800, 2900],
    children: [heading(0), heading(700), heading(1400)],
  };
  expect(seenBy(covered, PAGE, [list])).toEqual([]);
});

test('headings of whatever rank push one another away; another bar lies on them', () => {
  const bar = (tag: string, y: number, flags = 0): Node => ({
    tag,
    id: `at-${y}`,
    box: [0, y, 800, 40],
    flags,
    style: { ...CARD, position: 'sticky', top: '0px' },
    lines: [line(10, y + 10, 100, 'Heron')],
  });
  const article = (children: Node[]): Node => ({ tag: 'article', box: [0, 0, 800, 2900], children });
  const headings = [bar('h1', 0, FLAG_HEADING), bar('h3', 700, FLAG_HEADING)];
  expect(seenBy(covered, PAGE, [article(headings)])).toEqual([]);
  expect(seenBy(covered, PAGE, [article([bar('h1', 0, FLAG_HEADING), bar('div', 700)])])).toHaveLength(1);
});

describe('words on a head that sticks and was not scrolled yet', () => {
  const head = (style: Record<string, string>, y = 20): Node => ({
    tag: 'h2',
    box: [0, y, 400, 40],
    style: { position: 'sticky', ...style },
    lines: [line(10, y + 10, 180, 'Names of the boats')],
  });
  const note = (y: number): Node => ({
    tag: 'p',
    id: 'note',
    box: [0, y, 400, 20],
    style: { position: 'relative', top: '-40px' },
    lines: [line(100, y, 180, 'Seven in the morning')],
  });

  test('are a fault where the head stands in its place: scrolling takes them further over it', () => {
    expect(seenBy(textOverlap, PAGE, [head({ top: '0px' }), note(30)])).toEqual([
      expect.stringMatching(/^#note y /),
    ]);
  });

  test('are none where the head is held away from its place, so that they may pass', () => {
    expect(seenBy(textOverlap, PAGE, [head({ top: '20px' }), note(30)])).toEqual([]);
    expect(seenBy(textOverlap, PAGE, [head({ bottom: '0px' }, 560), note(570)])).toEqual([]);
  });
});

describe('a bar that sticks in a list of its own', () => {
  const bar = (style: Record<string, string>, y: number, height = 40): Node => ({
    tag: 'div',
    id: `bar-${y}`,
    box: [0, y, 400, height],
    style: { ...WHITE, position: 'sticky', 'z-index': '1', ...style },
    lines: [line(10, y + 10, 100, 'Log')],
  });
  const entry = (y: number): Node => ({
    tag: 'p',
    id: `at-${y}`,
    box: [0, y, 400, 40],
    lines: [line(10, y + 10, 200, 'Fog over the quay')],
  });
  /** A list of 300 px, `rest` px of it below, 100 px down the page. */
  const list = (children: Node[], rest: number, style: Record<string, string> = {}): Node => ({
    tag: 'section',
    box: [0, 100, 400, 300],
    style: { 'overflow-x': 'auto', 'overflow-y': 'auto', ...style },
    scroll: [400, 300, 400, 300 + rest],
    children,
  });
  const entries = (from: number, count: number) =>
    Array.from({ length: count }, (_, i) => entry(from + 40 * i));

  test('hides what was pulled under it, as it does on a page', () => {
    const pulled = [bar({ top: '0px' }, 100), ...entries(115, 10)];
    expect(seenBy(covered, PAGE, [list(pulled, 400)])).toEqual(['#bar-100 y 11']);
    expect(seenBy(covered, PAGE, [list([bar({ top: '0px' }, 100), ...entries(140, 10)], 400)])).toEqual([]);
  });

  test('lets what a scrolled list shows under it come free', () => {
    const scrolled = list([...entries(80, 10), bar({ bottom: '0px' }, 360)], 120);
    expect(seenBy(covered, PAGE, [scrolled])).toEqual([]);
  });

  test('hides the last entry where no room is left for it at the end', () => {
    const ended = (rest: number) => list([...entries(100, 10), bar({ bottom: '0px' }, 360)], rest);
    // 400 px of entries, and 40 px of the bar below them, or only half of that.
    expect(seenBy(covered, PAGE, [ended(140)])).toEqual([]);
    expect(seenBy(covered, PAGE, [ended(110)])).toEqual([expect.stringMatching(/^#bar-360 y /)]);
  });

  test('hides another one that sticks as high, and none that it reaches later', () => {
    const two = (top: string, y: number) => [
      { ...bar({ top: '0px', 'z-index': '2' }, 100) },
      bar({ top }, y),
      ...entries(y + 40, 10),
    ];
    expect(seenBy(covered, PAGE, [list(two('0px', 120), 400)])).toHaveLength(1);
    expect(seenBy(covered, PAGE, [list(two('40px', 140), 400)])).toEqual([]);
  });

  test('that stands for the page lies under what stays over it once it sticks', () => {
    const app = (children: Node[]): Node => ({
      tag: 'main',
      id: 'app',
      box: [0, 0, 800, 600],
      style: { 'overflow-x': 'auto', 'overflow-y': 'auto' },
      scroll: [800, 600, 800, 3000],
      children,
    });
    const page = { ...PAGE, scrollHeight: 600 };
    const inside = (top: string) => [header(), app([section(top)])];
    expect(seenBy(covered, page, inside('0px'))).toEqual(['#bar y 12']);
    expect(seenBy(covered, page, inside('64px'))).toEqual([]);
  });
});
