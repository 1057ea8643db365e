import fc from 'fast-check';
import { intersect, union, type Rect } from '../../../src/core/geometry/rect.js';
import { includes, spansOf } from '../../../src/core/geometry/span.js';

const rect = fc.record({
  x: fc.integer({ min: -500, max: 500 }),
  y: fc.integer({ min: -500, max: 500 }),
  width: fc.integer({ min: 1, max: 500 }),
  height: fc.integer({ min: 1, max: 500 }),
});

const holds = (outer: Rect, inner: Rect) => {
  const both = union(outer, inner);
  return (
    both.x === outer.x && both.y === outer.y && both.width === outer.width && both.height === outer.height
  );
};

test('an intersection lies in both, a union holds both, and neither depends on the order', () => {
  fc.assert(
    fc.property(rect, rect, (a, b) => {
      expect(intersect(a, b)).toEqual(intersect(b, a));
      expect(union(a, b)).toEqual(union(b, a));
      expect(holds(union(a, b), a) && holds(union(a, b), b)).toBe(true);
      const common = intersect(a, b);
      if (common) expect(holds(a, common) && holds(b, common)).toBe(true);
    }),
  );
});

test('touching rectangles share no area', () => {
  expect(intersect({ x: 0, y: 0, width: 10, height: 10 }, { x: 10, y: 0, width: 10, height: 10 })).toBeNull();
});

test('spans run over neighbours in the list of all widths', () => {
  const all = [320, 360, 390, 768, 1024];
  expect(spansOf([390, 360, 1024], all)).toEqual([
    { min: 360, max: 390 },
    { min: 1024, max: 1024 },
  ]);
  fc.assert(
    fc.property(fc.subarray(all), (widths) => {
      const spans = spansOf(widths, all);
      for (const width of all)
        expect(spans.some((span) => includes(span, width))).toBe(widths.includes(width));
    }),
  );
});
