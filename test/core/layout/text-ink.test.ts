import { emOf, inkOf, lettersOf } from '../../../src/core/layout/text-ink.js';
import { viewOf } from '../../support/snapshot.js';

/** Baseline at 0.65 of a box of 2.1 em, as faces for scripts with marks above and below have it. */
const TALL = [0.65, 0.8, 0.4, 2.1] as const;

const made = (size: number, height: number, face?: number, text = 'Boats by night') =>
  viewOf({ width: 400, faces: [TALL] }, [
    {
      tag: 'p',
      box: [0, 0, 300, 40],
      style: { 'font-size': `${size}px` },
      lines: [{ box: [0, 100, 200, height], text, ...(face !== undefined && { face }) }],
    },
  ]);

test('letters stand where their face puts them', () => {
  const view = made(20, 42, 0);
  expect(emOf(view, 0)).toBe(20);
  // The baseline is 27.3 px down; 16 px of letters over it, and 0.8 px of overshoot or 8 px of descenders below.
  expect(inkOf(view, 0).y).toBeCloseTo(111.3);
  expect(inkOf(view, 0).height).toBeCloseTo(16.8);
  expect(lettersOf(view, 0).height).toBeCloseTo(24);
});

test('a face that was not measured is taken for a usual one', () => {
  const view = made(16, 19);
  expect(inkOf(view, 0).y).toBeCloseTo(100 + 19 * 0.78 - 11.2);
  expect(lettersOf(view, 0).height).toBeCloseTo(14.4);
});

test('a line of which no letter reaches below the baseline has its feet there', () => {
  expect(lettersOf(made(20, 42, 0, 'Boats 04:17'), 0).height).toBeCloseTo(16.8);
  // A letter that is not known may have any.
  expect(lettersOf(made(20, 42, 0, 'Бот'), 0).height).toBeCloseTo(24);
});

test('of several lines, one that was read has the feet of its own letters', () => {
  const feet = (read: boolean) => {
    const first = { box: [0, 100, 30, 42] as const, text: 'H', face: 0, read };
    const rest = { box: [30, 100, 200, 21] as const, text: 'Hemp is tarred by the gypsy', face: 0 };
    const style = { 'font-size': '20px' };
    const view = viewOf({ width: 400, faces: [TALL] }, [
      { tag: 'p', box: [0, 0, 300, 40], style, lines: [first, rest] },
    ]);
    return lettersOf(view, 0).height;
  };
  expect(feet(true)).toBeCloseTo(16.8);
  expect(feet(false)).toBeCloseTo(24);
});

test('what is scaled has larger letters; rounding to whole px is no scaling', () => {
  expect(emOf(made(20, 84, 0), 0)).toBeCloseTo(40);
  expect(emOf(made(20, 43, 0), 0)).toBe(20);
});
