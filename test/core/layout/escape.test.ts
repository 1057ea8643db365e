import { endEscapes } from '../../../src/core/layout/escape.js';
import { viewOf, type Node, type PageOptions } from '../../support/snapshot.js';

const wide = (style: Record<string, string> = {}, more: Partial<Node> = {}): Node => ({
  tag: 'div',
  box: [0, 0, 400, 40],
  style,
  children: [{ tag: 'p', box: [20, 0, 430, 20], ...more }],
});
/** Rows: 2 the outer, 3 the inner element. */
const escapes = (node: Node, options: Partial<PageOptions> = {}) =>
  endEscapes(viewOf({ width: 400, ...options }, [node]));

test('how far past the edge, and where it begins', () => {
  const found = escapes(wide());
  expect([...found.past].slice(2)).toEqual([0, 50]);
  expect([found.beginsAt(2), found.beginsAt(3)]).toEqual([false, true]);
  const both = escapes({ ...wide(), box: [0, 0, 420, 40] });
  expect([both.beginsAt(2), both.beginsAt(3)]).toEqual([true, false]);
});

test('rounding is none, and what has no box neither', () => {
  expect(escapes(wide({}, { box: [0, 0, 400.4, 20] })).escapes(3)).toBe(false);
  expect(escapes(wide({}, { box: [900, 0, 0, 0] })).escapes(3)).toBe(false);
  expect(escapes(wide({}, { hidden: true })).escapes(3)).toBe(false);
});

test('what cuts or scrolls on the way keeps it; what is fixed does not make a page scroll', () => {
  for (const overflow of ['hidden', 'auto', 'clip'])
    expect(escapes(wide({ 'overflow-x': overflow, 'overflow-y': overflow })).escapes(3)).toBe(false);
  expect(escapes(wide({}, { style: { position: 'fixed' } })).escapes(3)).toBe(false);
  // Not one that an absolute box does not stand in.
  const style = { 'overflow-x': 'hidden', 'overflow-y': 'hidden' };
  expect(escapes(wide(style, { style: { position: 'absolute' } })).past[3]).toBe(50);
});

test('lines of an element that itself ends at the edge', () => {
  const found = escapes(wide({}, { box: [0, 0, 400, 20], lines: [{ box: [10, 0, 425, 20] }] }));
  expect(found.past[3]).toBe(35);
  expect(found.extent(3)).toEqual({ x: 0, y: 0, width: 435, height: 20 });
});

test('from right to left it is the left edge', () => {
  const found = escapes(wide({}, { box: [-30, 0, 200, 20] }), { direction: 'rtl' });
  expect(found.past[3]).toBe(30);
  const inner = { x: -30, y: 0, width: 60, height: 20 };
  const outer = { x: 0, y: 0, width: 400, height: 40 };
  expect([found.pastEdge(inner), found.startPastEdge(inner)]).toEqual([30, -30]);
  expect(found.reachesEnd(inner, outer, 0)).toBe(true);
  expect(found.reachesEnd(outer, inner, 10)).toBe(false);
});
