import { packPlaces, unpackPlaces } from '../../../src/core/compare/packed-places.js';
import { placesOf, type Place } from '../../../src/core/compare/places.js';
import { scrollToSamePlace, type Looked } from '../../../src/core/compare/same-place.js';
import { FLAG_HEADING } from '../../../src/core/layout/snapshot.js';
import { viewOf } from '../../support/snapshot.js';

const heading = (key: string, y: number): Place => ({ key, kind: 'heading', y });
const looked = (places: readonly Place[], more: Partial<Looked> = {}): Looked => ({
  places,
  pageHeight: 4000,
  factor: 1,
  windowHeight: 600,
  ...more,
});

test('a heading in sight is brought to the same height, whatever the scale', () => {
  const from = looked([heading('a', 100), heading('b', 1000), heading('c', 2000)]);
  const to = looked([heading('a', 80), heading('b', 700), heading('c', 1500)], {
    factor: 0.5,
    windowHeight: 500,
  });
  // b is drawn 60 px below the top of the one, so it is in the other: 700 × 0.5 − 60.
  expect(scrollToSamePlace(from, 940, to)).toBe(290);
});

test('between headings the way is divided evenly', () => {
  const from = looked([heading('a', 1000), heading('b', 2000)]);
  const to = looked([heading('a', 500), heading('b', 700)]);
  // The eye, 180 px below the top, is half way from a to b.
  expect(scrollToSamePlace(from, 1320, to)).toBeCloseTo(600 - 180);
});

test('the top is the top, and no page is scrolled past its end', () => {
  const from = looked([heading('a', 3500)]);
  const to = looked([heading('a', 1400)], { pageHeight: 1500 });
  expect(scrollToSamePlace(from, 0, to)).toBe(0);
  expect(scrollToSamePlace(from, 3400, to)).toBe(900);
});

test('what stands in another order on the other render is not gone by', () => {
  const from = looked([heading('z', 100), heading('a', 500), heading('moved', 1000), heading('b', 1500)]);
  const to = looked([heading('moved', 50), heading('z', 100), heading('a', 500), heading('b', 1500)]);
  expect(scrollToSamePlace(from, 950, to)).toBeCloseTo(950);
});

test('renders that share nothing are scrolled by their share of the page', () => {
  const to = looked([heading('y', 5)], { pageHeight: 2000 });
  expect(scrollToSamePlace(looked([heading('x', 5)]), 2000, to)).toBeCloseTo(910);
});

test('headings, landmarks and texts are places, by what they say and where they are among their like; bars that stay are not', () => {
  const at = (y: number, height = 30): [number, number, number, number] => [0, y, 400, height];
  const title = (y: number) => ({
    tag: 'h2',
    box: at(y),
    flags: FLAG_HEADING,
    lines: [{ box: at(y), text: 'Fares' }],
  });
  const view = viewOf({ width: 400 }, [
    { tag: 'header', box: at(0, 50), style: { position: 'fixed' } },
    title(100),
    title(300),
    {
      tag: 'section',
      box: at(400, 300),
      children: [{ tag: 'p', box: at(420, 20), lines: [{ box: at(420, 20), text: 'By night' }] }],
    },
  ]);
  const places = placesOf(view);
  expect(places.map(({ kind, y }) => [kind, y])).toEqual([
    ['heading', 100],
    ['heading', 300],
    ['landmark', 400],
    ['text', 420],
  ]);
  expect(new Set(places.map(({ key }) => key)).size).toBe(4);
});

test('places are kept in few numbers and read back, what one render alone has left out', () => {
  const a = [heading('a', 10), { ...heading('b', 50), kind: 'text' as const }, heading('alone', 70)];
  const b = [heading('a', 12), { ...heading('b', 40), kind: 'text' as const }];
  const packed = packPlaces([
    { name: 'phone', places: a },
    { name: 'tablet', places: b },
  ]);
  const [phone, tablet] = ['phone', 'tablet'].map((name) => unpackPlaces(packed, name));
  expect(phone!.map(({ kind, y }) => [kind, y])).toEqual([
    ['heading', 10],
    ['text', 50],
  ]);
  expect(tablet!.map(({ key }) => key)).toEqual(phone!.map(({ key }) => key));
  expect(unpackPlaces(packed, 'other')).toEqual([]);
});
