import { rulerScale } from '../../../src/report/view/ruler-scale.js';
import { atWidth, nextChange, nextShot } from '../../../src/report/view/scrub.js';
import type { Manifest } from '../../../src/run/manifest.js';
import { findingOf } from '../../support/manifest.js';

const sweep: NonNullable<Manifest['sweep']>[number] = {
  page: 'home',
  axis: 'width',
  from: 280,
  to: 1920,
  across: 800,
  layouts: 40,
  exhaustive: false,
  anew: false,
  whole: true,
  edges: [
    { width: 600, message: 'the menu becomes a row' },
    { width: 900, message: 'cards go from 1 to 2 columns' },
  ],
  ranges: [
    { label: 'narrow', span: [280, 599] },
    { label: 'wide', span: [600, 1920] },
  ],
  shots: [280, 599, 600, 700, 899, 900, 1920].map((width) => ({ width, file: `${width}.webp` })),
  notes: [],
  error: null,
};

test('what is known at a width: its layout, how that began, its picture, its range and what fails', () => {
  const failing = { ...findingOf('home', 'error', [1]), spans: { home: [[650, 700] as [number, number]] } };
  const elsewhere = { ...findingOf('home', 'error', [1]), spans: { home: [[280, 300] as [number, number]] } };
  const at = atWidth(sweep, [failing, elsewhere], 660);
  expect(at).toMatchObject({ stretch: [600, 899], change: 'the menu becomes a row', label: 'wide' });
  expect(at.shot?.width).toBe(700);
  expect(at.failing).toEqual([failing]);
  // The nearest picture of another layout is none of this one.
  expect(atWidth(sweep, [], 605).shot?.width).toBe(600);
  expect(atWidth(sweep, [], 300)).toMatchObject({ stretch: [280, 599], change: '', label: 'narrow' });
});

test('steps go from change to change, and from picture to picture', () => {
  expect(nextChange(sweep, 280, 1)).toBe(600);
  expect(nextChange(sweep, 700, 1)).toBe(900);
  expect(nextChange(sweep, 900, 1)).toBe(1920);
  expect(nextChange(sweep, 700, -1)).toBe(600);
  expect(nextChange(sweep, 600, -1)).toBe(280);
  expect(nextShot(sweep, 600, 1)).toBe(700);
  expect(nextShot(sweep, 280, -1)).toBe(280);
});

test('places on the ruler and widths are each other the other way round', () => {
  const scale = rulerScale(1920);
  for (const width of [280, 390, 768, 1366, 1920]) expect(scale.widthAt(scale.placeOf(width))).toBe(width);
  expect([scale.widthAt(-1), scale.widthAt(2)]).toEqual([280, 1920]);
});
