import { covered } from '../../../src/core/rules/overlap/covered.js';
import { textOverlap } from '../../../src/core/rules/overlap/text-overlap.js';
import { FLAG_CONTROL, FLAG_PICTURE, FLAG_REPLACED } from '../../../src/core/layout/snapshot.js';
import { CARD, line, renderOf, seenBy } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const PAGE = { width: 400, height: 800 };

describe('words behind the ground of what they stand in', () => {
  const section = (
    sunk: Readonly<Record<string, string>>,
    own: Readonly<Record<string, string>> = {},
  ): Node => ({
    tag: 'section',
    id: 'section',
    box: [0, 100, 400, 80],
    style: { ...CARD, ...own },
    children: [
      {
        tag: 'div',
        id: 'sunk',
        box: [10, 110, 380, 60],
        style: { position: 'relative', ...sunk },
        children: [{ tag: 'p', box: [10, 110, 380, 20], lines: [line(10, 110, 180)] }],
      },
    ],
  });
  test('a negative z-index puts them there, and is at fault', () => {
    expect(seenBy(covered, PAGE, [section({ 'z-index': '-1' })])).toEqual(['#sunk y 12']);
  });
  test('what waits there is left alone: a slide behind the one that is shown, a menu', () => {
    const { children, ...box } = section({ 'z-index': '-1' });
    const [sunk] = children!;
    const shown: Node = { ...sunk!, id: 'shown', style: { position: 'absolute' } };
    expect(seenBy(covered, PAGE, [{ ...box, children: [sunk!, shown] }])).toEqual([]);
    const menu: Node = {
      ...sunk!,
      style: { position: 'absolute', 'z-index': '-1' },
      children: [{ tag: 'a', box: [10, 110, 380, 20], flags: FLAG_CONTROL, lines: [line(10, 110, 180)] }],
    };
    expect(seenBy(covered, PAGE, [{ ...box, children: [menu] }])).toEqual([]);
  });
  test('not where the ground is of a stacking context, nor without a z-index', () => {
    const context = { position: 'relative', 'z-index': '0' };
    expect(seenBy(covered, PAGE, [section({ 'z-index': '-1' }, context)])).toEqual([]);
    expect(seenBy(covered, PAGE, [section({})])).toEqual([]);
    expect(
      seenBy(covered, PAGE, [section({ 'z-index': '-1' }, { 'background-color': 'rgba(0, 0, 0, 0)' })]),
    ).toEqual([]);
  });
});

describe('a sticky head that is held over what follows it before anybody scrolls', () => {
  const table = (top: string, headAt: number, scrolledTo = 0): [Node[], object] => {
    const row = (y: number): Node => ({ tag: 'p', box: [0, y, 300, 30], lines: [line(10, y + 5, 100)] });
    const head: Node = {
      tag: 'p',
      id: 'head',
      box: [0, headAt, 300, 30],
      style: { ...CARD, position: 'sticky', top },
    };
    const scroller: Node = {
      tag: 'div',
      id: 'scroller',
      box: [0, 100, 300, 120],
      style: { 'overflow-y': 'auto', 'overflow-x': 'auto' },
      scroll: [300, 120, 300, 400],
      children: [head, row(130 - scrolledTo), row(160 - scrolledTo), row(190 - scrolledTo)],
    };
    return [[scroller], scrolledTo === 0 ? {} : { scrolled: [[2, 0, scrolledTo]] }];
  };
  const seen = ([nodes, more]: [Node[], object]) => seenBy(covered, { ...PAGE, ...more }, nodes);
  test('by more than the room before it', () => {
    expect(seen(table('34px', 134))).toEqual(['#head y 12']);
  });
  test('what lies under it only while the part is scrolled comes free', () => {
    expect(seen(table('0px', 100))).toEqual([]);
    expect(seen(table('34px', 134, 20))).toEqual([]);
  });
  test('where it begins at its distance it covers nothing', () => {
    expect(seen(table('30px', 100))).toEqual([]);
  });
});

test('what one thing hides is one finding, of it, where something under it has not left its place', () => {
  const picture: Node = {
    tag: 'img',
    id: 'picture',
    box: [200, 20, 180, 100],
    flags: FLAG_PICTURE | FLAG_REPLACED,
    style: { position: 'absolute' },
  };
  // The first runs out of its box to the picture, the second is as wide as that.
  const words: Node[] = [
    { tag: 'p', id: 'long', box: [0, 30, 150, 20], lines: [line(0, 30, 260)] },
    { tag: 'p', id: 'wide', box: [0, 70, 300, 20], lines: [line(0, 70, 290)] },
  ];
  expect(seenBy(covered, PAGE, [words[0]!, picture])).toEqual(['#long y 12']);
  expect(seenBy(covered, PAGE, [...words, picture])).toEqual(['#picture y 12']);
  const [sighting] = covered.check(renderOf(PAGE, [...words, picture]));
  expect(sighting!.message).toContain('and 1 more');
});

describe('letters on letters of one word', () => {
  const spaced = (spacing: string, text = 'Boats of the day'): Node => ({
    tag: 'h2',
    id: 'h',
    box: [0, 0, 300, 20],
    says: text,
    setting: `400;normal;none;${spacing};start`,
    lines: [line(0, 0, 100, text)],
  });
  test('set closer than they have room', () => {
    expect(seenBy(textOverlap, PAGE, [spaced('-4px')])).toEqual(['#h x 4']);
  });
  test.each([
    ['a tight heading', '-0.8px', undefined],
    ['letters with more room', '3px', undefined],
    ['no spacing of their own', 'normal', undefined],
    ['stars', '-4px', '★★★★'],
  ])('%s are left alone', (_, spacing, text) => {
    expect(seenBy(textOverlap, PAGE, [spaced(spacing, text)])).toEqual([]);
  });
});

test('ruby counts once it was taken out of its line', () => {
  const page = (style: Readonly<Record<string, string>>): Node[] => [
    {
      tag: 'p',
      box: [0, 0, 300, 40],
      lines: [line(0, 0, 280, 'Go along the wall'), line(0, 20, 280, 'to Skerravoe')],
      children: [{ tag: 'rt', id: 'rt', box: [40, 2, 60, 19], style, lines: [line(40, 2, 60, 'SKER')] }],
    },
  ];
  expect(seenBy(textOverlap, PAGE, page({ position: 'absolute' }))).toEqual(['#rt y 10']);
  expect(seenBy(textOverlap, PAGE, page({ display: 'ruby-text' }))).toEqual([]);
});
