import { outlinesOf } from '../../../src/core/layout/outlines.js';
import { controlClipped } from '../../../src/core/rules/clipped/control-clipped.js';
import { textClipped } from '../../../src/core/rules/clipped/text-clipped.js';
import { line, seenBy } from '../../support/render.js';
import { viewOf, type Node } from '../../support/snapshot.js';

const HIDES = { 'overflow-x': 'hidden', 'overflow-y': 'hidden' };
const corners = (radius: string) => ({
  'border-top-left-radius': radius,
  'border-top-right-radius': radius,
  'border-bottom-right-radius': radius,
  'border-bottom-left-radius': radius,
});
/** Whether a point of a box of 200 × 100 at the page's corner is inside of its outline. */
function holds(style: Record<string, string>, border = 0) {
  const box: Node = { tag: 'div', box: [0, 0, 200, 100], style, border: [border, border, border, border] };
  const [outline] = outlinesOf(viewOf({ width: 800 }, [box]))[2]!;
  return (x: number, y: number) => outline?.holds?.(x, y);
}

test('rounded corners cut where the box clips, by radii less the border', () => {
  const round = holds({ ...HIDES, ...corners('50px') });
  expect([round(2, 2), round(50, 2), round(2, 50), round(20, 20)]).toEqual([false, true, true, true]);
  expect(holds({ ...HIDES, ...corners('50px') }, 40)(42, 42)).toBe(false);
  expect(holds(corners('50px'))(2, 2)).toBeUndefined();
  expect(holds({ ...corners('50px'), 'overflow-x': 'auto', 'overflow-y': 'auto' })(2, 2)).toBeUndefined();
});

test('radii that do not fit are made smaller together', () => {
  // 400 px of radius on a side of 100 px: half circles at both ends.
  const pill = holds({ ...HIDES, ...corners('400px') });
  expect([pill(100, 1), pill(14, 14), pill(16, 16)]).toEqual([true, false, true]);
  const ellipse = holds({ ...HIDES, ...corners('50%') });
  expect([ellipse(100, 1), ellipse(60, 4)]).toEqual([true, false]);
});

test.each([
  // Along the diagonal, 10, 20 and 28 of 50 px from both edges.
  ['square', [true, true, true]],
  ['squircle', [true, true, true]],
  ['round', [false, true, true]],
  ['bevel', [false, false, true]],
  ['scoop', [false, false, false]],
  ['superellipse(-1)', [false, false, false]],
  ['superellipse(-infinity)', [false, false, false]],
  ['', [false, true, true]],
])('a corner that is shaped %s', (shape, held) => {
  const cut = holds({ ...HIDES, ...corners('50px'), 'corner-top-left-shape': shape });
  expect([cut(10, 10), cut(20, 20), cut(28, 28)]).toEqual(held);
  // Only a notch takes all; the other corners are round.
  expect([cut(20, 49), cut(198, 2)]).toEqual([shape !== 'superellipse(-infinity)', false]);
});

test('circles, ellipses and polygons of a clip-path', () => {
  const circle = holds({ 'clip-path': 'circle(50px at 50px 50px)' });
  expect([circle(50, 50), circle(99, 50), circle(120, 50), circle(3, 3)]).toEqual([true, true, false, false]);
  expect(holds({ 'clip-path': 'circle()' })(149, 50)).toBe(true);
  expect(holds({ 'clip-path': 'circle()' })(151, 50)).toBe(false);
  const ellipse = holds({ 'clip-path': 'ellipse(50% 25%)' });
  expect([ellipse(10, 50), ellipse(100, 20)]).toEqual([true, false]);
  const slanted = holds({ 'clip-path': 'polygon(0 0, 100% 0, 100% 50%, 0 100%)' });
  expect([slanted(10, 90), slanted(190, 90)]).toEqual([true, false]);
});

test.each([
  { 'clip-path': 'path("M0 0H200V20L0 100Z")' },
  { 'clip-path': 'shape(from 0px 0px, line to 100% 0px, line to 0px 100%, close)' },
  { 'clip-path': 'url("#wave")' },
  { 'mask-image': 'url("wave.svg")' },
])('of %o no form is known', (style) => {
  const box: Node = { tag: 'div', box: [0, 0, 200, 100], style };
  expect(outlinesOf(viewOf({ width: 800 }, [box]))[2]).toEqual([{ node: 2, holds: null }]);
});

const chip = (style: Record<string, string>, x: number): Node => ({
  tag: 'div',
  id: 'chip',
  box: [0, 0, 200, 100],
  style: { ...HIDES, ...style },
  lines: [line(x, 2, 120, 'Winter timetable of the sound')],
});

test('text that stands in a corner is cut; beside it, it is not', () => {
  expect(seenBy(textClipped, { width: 800 }, [chip(corners('50px'), 0)])[0]).toMatch(/^#chip x/);
  expect(seenBy(textClipped, { width: 800 }, [chip(corners('50px'), 40)])).toEqual([]);
  expect(seenBy(textClipped, { width: 800 }, [chip(corners('6px'), 0)])).toEqual([]);
});

test('what a shape hides whole is closed, unless the shape shows other text', () => {
  const closed = chip({ 'clip-path': 'circle(10px at 190px 90px)' }, 0);
  expect(seenBy(textClipped, { width: 800 }, [closed])).toEqual([]);
  const other = { ...closed, lines: [...closed.lines!, line(185, 78, 9, 'i')] };
  expect(seenBy(textClipped, { width: 800 }, [other])).toEqual(['#chip x 120']);
  expect(seenBy(controlClipped, { width: 800 }, [other])).toEqual([]);
});
