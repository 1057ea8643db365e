import { clipPathInset } from '../../../src/core/css/clip-values.js';
import { alphaOf, alphasIn } from '../../../src/core/css/colours.js';
import { lengthOf } from '../../../src/core/css/lengths.js';
import { shapeOf } from '../../../src/core/css/shapes.js';

const BOX = { x: 100, y: 50, width: 200, height: 80 };

test('math functions of px and percentages', () => {
  expect(lengthOf('calc(50% - 10px)', 200)).toBe(90);
  expect(lengthOf('calc((100% - 20px) / 3)', 200)).toBe(60);
  expect(lengthOf('min(50%, 30px)', 200)).toBe(30);
  expect(lengthOf('clamp(10px, 1%, 30px)', 200)).toBe(10);
  expect(lengthOf('-12.5%', 200)).toBe(-25);
  for (const none of ['auto', 'calc(1em + 50%)', '2em', '', 'calc(']) expect(lengthOf(none, 200)).toBeNaN();
});

test('an inset with a sum in it is what the sum says, and a round part is no inset', () => {
  const inset = { top: 30, right: 4, bottom: 30, left: 180 };
  expect(clipPathInset('inset(calc(50% - 10px) 4px calc(50% - 10px) calc(100% - 20px))', BOX)).toEqual(inset);
  expect(clipPathInset('inset(0px 50% round calc(10% + 4px) 5px / 2px)', BOX)).toEqual({
    top: 0,
    right: 100,
    bottom: 0,
    left: 100,
  });
  expect(clipPathInset('ellipse(0px 40px at 50% 50%)', BOX)).toMatchObject({ top: 80 });
  expect(clipPathInset('circle(closest-side)', BOX)).toBeNull();
  expect(clipPathInset('url("#hole")', BOX)).toBeNull();
});

test('shapes by their parts', () => {
  expect(shapeOf('polygon(evenodd, 0px 0px, calc(100% - 5px) 2px)')).toEqual({
    kind: 'polygon',
    groups: [['evenodd'], ['0px', '0px'], ['calc(100% - 5px)', '2px']],
  });
  expect(shapeOf('none')).toBeNull();
});

test('how opaque colours are, in every notation', () => {
  const alphas = [
    ['rgb(10, 20, 30)', 1],
    ['rgba(10, 20, 30, 0.25)', 0.25],
    ['transparent', 0],
    ['', 0],
    ['color(srgb 0.1 0.2 0.3 / 0.4)', 0.4],
    ['oklch(0.7 0.1 200 / 50%)', 0.5],
    ['lab(50 20 -10)', 1],
  ] as const;
  expect(alphas.map(([colour]) => alphaOf(colour))).toEqual(alphas.map(([, alpha]) => alpha));
  expect(
    alphasIn('linear-gradient(to right, rgba(0, 0, 0, 0) 10%, oklab(0.5 0 0 / 0.5), rgb(1, 2, 3))'),
  ).toEqual([0, 0.5, 1]);
  expect(alphasIn('url("blue.svg")')).toEqual([]);
});
