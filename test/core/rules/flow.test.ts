import { findingsOfPage } from '../../../src/core/findings/group.js';
import { FLAG_CONTROL } from '../../../src/core/layout/snapshot.js';
import { entryWraps } from '../../../src/core/rules/flow/entry-wraps.js';
import { labelWraps } from '../../../src/core/rules/flow/label-wraps.js';
import { loneItem } from '../../../src/core/rules/flow/lone-item.js';
import { CARD, renderOf, seenBy } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const PAGE = { width: 600 };

/** Four cards, so many of them in the first row. */
function cards(inFirst: number, more: Partial<Node> = {}): Node {
  const children = [0, 1, 2, 3].map((i): Node => ({
    tag: 'div',
    class: 'card',
    id: `c${i}`,
    box: i < inFirst ? [i * 150, 0, 140, 80] : [(i - inFirst) * 150, 90, 140, 80],
    style: CARD,
    ...more,
  }));
  return { tag: 'div', box: [0, 0, 600, 200], style: { display: 'flex', 'flex-wrap': 'wrap' }, children };
}

test('the last of a row, alone in a second one', () => {
  expect(seenBy(loneItem, PAGE, [cards(3)])).toEqual(['#c3']);
  expect(seenBy(loneItem, PAGE, [cards(2)])).toEqual([]);
  expect(seenBy(loneItem, PAGE, [cards(4)])).toEqual([]);
  expect(seenBy(loneItem, PAGE, [cards(3, { style: {} })])).toEqual([]);
});

test('it counts only where a wider render is free of it', () => {
  const narrow = renderOf(PAGE, [cards(3)]);
  const wide = (inFirst: number) => renderOf({ width: 900 }, [cards(inFirst)]);
  const found = (...renders: (typeof narrow)[]) => findingsOfPage('home', renders, [loneItem]).length;
  expect(found(narrow)).toBe(0);
  expect(found(narrow, wide(4))).toBe(1);
  expect(found(narrow, wide(3))).toBe(0);
});

const entry = (id: string, x: number, rows: number, text = 'Times today'): Node => ({
  tag: 'li',
  box: [x, 0, 90, rows * 20],
  children: [
    {
      tag: 'a',
      id,
      box: [x, 0, 90, rows * 20],
      flags: FLAG_CONTROL,
      lines: Array.from({ length: rows }, (_, i) => ({ box: [x, i * 20, 60, 19] as const, text })),
    },
  ],
});
const menu = (...entries: Node[]): Node => ({ tag: 'ul', box: [0, 0, 600, 40], children: entries });

test('an entry of a menu that breaks while its neighbours do not', () => {
  const seen = (...rows: [number, number, number]) =>
    seenBy(entryWraps, PAGE, [menu(...rows.map((count, i) => entry(`e${i}`, i * 100, count)))]);
  expect(seen(1, 2, 1)).toEqual(['#e1']);
  expect(seen(1, 1, 1)).toEqual([]);
  expect(seen(2, 2, 2)).toEqual([]);
});

test('long entries are sentences, and sentences break', () => {
  const long = entry('e1', 100, 2, 'All boats that call at Far Isle on Sundays');
  expect(seenBy(entryWraps, PAGE, [menu(entry('e0', 0, 1), long, entry('e2', 200, 1))])).toEqual([]);
});

test('the label of a button in two rows', () => {
  const button = (rows: number, style = CARD): Node => ({
    tag: 'button',
    id: 'b',
    box: [0, 0, 90, 60],
    flags: FLAG_CONTROL,
    style: { ...style, display: 'inline-block' },
    lines: Array.from({ length: rows }, (_, i) => ({ box: [8, i * 20, 60, 19] as const, text: 'Book now' })),
  });
  expect(seenBy(labelWraps, PAGE, [button(2)])).toEqual(['#b']);
  expect(seenBy(labelWraps, PAGE, [button(1)])).toEqual([]);
  expect(seenBy(labelWraps, PAGE, [{ ...button(2), children: [{ tag: 'br', box: [0, 0, 0, 0] }] }])).toEqual(
    [],
  );
});
