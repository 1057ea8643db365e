import fc from 'fast-check';
import { movedBetween, nothingMoving, unfollow } from '../../../src/core/sweep/moving.js';
import { search } from '../../../src/core/sweep/search.js';
import { shownWidths, bothSides } from '../../../src/core/sweep/shown-widths.js';
import { spansByKey, stretchesOf } from '../../../src/core/sweep/spans.js';
import type { Sample, Sight } from '../../../src/core/sweep/sample.js';
import type { Place, Trace } from '../../../src/core/sweep/trace.js';

const RANGE = { from: 280, to: 1000 };
const ERROR: Sight = { px: 4, severity: 'error' };

/** A made-up page: what its layout is at a width. */
interface Made {
  form(width: number): string;
  places?(width: number): readonly Place[];
  seen?(width: number): readonly string[];
}

function lookAt(page: Made): { look: (width: number) => Promise<Sample>; looked: number[] } {
  const looked: number[] = [];
  const look = (width: number): Promise<Sample> => {
    looked.push(width);
    const form = page.form(width);
    const places = new Map((page.places?.(width) ?? []).map((place, i) => [i, place]));
    // The search reads places and forms only.
    const trace = { forms: new Map(), places, form } as unknown as Trace;
    const seen = new Map((page.seen?.(width) ?? []).map((key) => [key, ERROR]));
    return Promise.resolve({ width, form, trace, seen, containers: new Map() });
  };
  return { look, looked };
}

const options = { ...RANGE, begins: [], every: false, most: Infinity };

/** Widths in rising order, so far apart at least that no two lie within what is looked at to begin with. */
const apart = (least: number) =>
  fc
    .uniqueArray(fc.integer({ min: RANGE.from + 1, max: RANGE.to }), { maxLength: 8 })
    .map((all) =>
      all.sort((a, b) => a - b).filter((width, i, list) => i === 0 || width - list[i - 1]! >= least),
    );

test('every edge of the form is found to the px, wherever it is', async () => {
  await fc.assert(
    fc.asyncProperty(apart(1), async (edges) => {
      const { look } = lookAt({ form: (width) => String(edges.filter((edge) => width >= edge).length) });
      const { samples, isWhole } = await search(look, options);
      expect(isWhole).toBe(true);
      expect(
        stretchesOf(samples)
          .slice(1)
          .map(({ min }) => min),
      ).toEqual(edges);
    }),
  );
});

test('spans of defects as wide as the first step are exact, and layouts are few', async () => {
  await fc.assert(
    fc.asyncProperty(apart(40), async (ends) => {
      const isSeen = (width: number) => ends.filter((end) => width >= end).length % 2 === 1;
      const { look, looked } = lookAt({ form: () => '', seen: (width) => (isSeen(width) ? ['a'] : []) });
      const { samples } = await search(look, options);
      const expected: { min: number; max: number }[] = [];
      for (let width = RANGE.from; width <= RANGE.to; width++) {
        if (!isSeen(width)) continue;
        const last = expected.at(-1);
        if (last?.max === width - 1) last.max = width;
        else expected.push({ min: width, max: width });
      }
      expect(spansByKey(samples).get('a') ?? []).toEqual(expected);
      // Five halvings of a step of 32 px for each end.
      expect(looked.length).toBeLessThanOrEqual(26 + 6 * ends.length);
      expect(new Set(looked).size).toBe(looked.length);
    }),
  );
});

test('a defect of a few px that begins where a box bends is found: bends are looked at', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.integer({ min: 300, max: 980 }),
      fc.integer({ min: 1, max: 6 }),
      async (bend, few) => {
        const { look, looked } = lookAt({
          form: () => '',
          // As wide as the window up to a width, then no wider.
          places: (width) => [[0, Math.min(width, bend)]],
          seen: (width) => (width >= bend && width < bend + few ? ['a'] : []),
        });
        const { samples } = await search(look, options);
        expect(spansByKey(samples).get('a')).toEqual([{ min: bend, max: bend + few - 1 }]);
        expect(looked.length).toBeLessThan(60);
      },
    ),
  );
});

test('lengths that grow evenly cost nothing beside the first layouts; those of tables may be a px off', async () => {
  const { look, looked } = lookAt({
    form: () => '',
    places: (width) => [
      [0.3 * width, 0.4 * width - 20],
      [10, Math.round((width * 64) / 3) / 64],
    ],
  });
  await search(look, options);
  expect(looked.length).toBe(1 + Math.ceil((RANGE.to - RANGE.from) / 32));
});

test('known beginnings are looked at on both sides first, and told while all of them is there', async () => {
  const { look, looked } = lookAt({ form: (width) => String(width >= 641) });
  const told: number[][] = [];
  await search(look, {
    ...options,
    begins: [640.5, 2000],
    onBegin: (before, after) => told.push([before.width, after.width]),
  });
  expect(looked).toEqual(expect.arrayContaining([640, 641]));
  expect(told).toEqual([[640, 641]]);
});

test('what changes at every width ends at the bound, and says so', async () => {
  const { look, looked } = lookAt({ form: (width) => String(width) });
  const found = await search(look, { ...options, most: 60 });
  expect([found.isWhole, found.isExact]).toEqual([false, false]);
  expect(looked.length).toBe(60);
});

test('where boxes bend at every width, what begins and ends is exact all the same', async () => {
  await fc.assert(
    fc.asyncProperty(fc.integer({ min: 281, max: 960 }), async (end) => {
      const { look, looked } = lookAt({
        form: () => '',
        places: (width) => [[0, (width * width) % 89]],
        seen: (width) => (width <= end ? ['a'] : []),
      });
      const found = await search(look, { ...options, most: 90 });
      expect([found.isWhole, found.isExact]).toEqual([false, true]);
      expect(spansByKey(found.samples).get('a')).toEqual([{ min: 280, max: end }]);
      expect(looked.length).toBeLessThanOrEqual(90);
    }),
  );
});

test('what nobody sees may stand anywhere, and a canvas a px off', async () => {
  const view = { tag: () => 'canvas' };
  const { look, looked } = lookAt({ form: () => '' });
  const withForms = async (width: number): Promise<Sample> => {
    const sample = await look(width);
    const forms = new Map([
      [0, { node: 0, display: 'block', isSeen: false }],
      [1, { node: 1, display: 'block', isSeen: true }],
    ]);
    const places = new Map([
      [0, [0, (width * width) % 89]],
      [1, [0, Math.floor(0.3 * width)]],
    ]);
    return { ...sample, trace: { forms, places, form: '', view } as unknown as Trace };
  };
  const found = await search(withForms, options);
  expect(found.isWhole).toBe(true);
  expect(looked.length).toBe(1 + Math.ceil((RANGE.to - RANGE.from) / 32));
});

test('a page that is not steady is not searched any farther', async () => {
  const { look, looked } = lookAt({ form: (width) => String(width) });
  const found = await search(look, { ...options, isSteady: () => Promise.resolve(false) });
  expect([found.isWhole, looked.length]).toEqual([false, 24]);
});

test('every width is looked at where that is asked for', async () => {
  const { look, looked } = lookAt({ form: () => '' });
  const { samples } = await search(look, { ...options, every: true });
  expect(looked.length).toBe(721);
  expect(samples.map(({ width }) => width)).toEqual([...samples.keys()].map((i) => 280 + i));
});

const sampleOf = (width: number, seen: Record<string, Sight>): Sample => ({
  width,
  form: '',
  containers: new Map(),
  trace: null,
  seen: new Map(Object.entries(seen)),
});
const notice: Sight = { px: null, severity: 'notice' };

test('what is shown: the worst width of a defect and the next free one; of a notice one width', () => {
  const samples = [
    sampleOf(280, {}),
    sampleOf(300, { a: { px: 3, severity: 'warning' } }),
    sampleOf(320, { a: { px: 2, severity: 'error' }, n: notice }),
    sampleOf(321, { n: notice }),
    sampleOf(400, { m: notice }),
    sampleOf(500, {}),
  ];
  const range = { min: 280, max: 500 };
  expect(shownWidths(samples, () => true, range)).toEqual([280, 320, 321, 400, 500]);
  expect(shownWidths(samples, (key) => key === 'm', range)).toEqual([280, 400, 500]);
  // Those of notices come after the others.
  expect(bothSides(samples, range)).toEqual([299, 300, 320, 321, 319, 322, 399, 400, 401]);
});

test('what moves by itself is left out, so that the search comes to its end', async () => {
  let clock = 0;
  const { look, looked } = lookAt({
    form: (width) => (width < 600 ? 'rows' : 'columns'),
    places: (width) => [
      [0, width / 2],
      [(clock = (clock + 37) % 100), 40],
    ],
  });
  const again = [await look(500), await look(500)] as const;
  const moving = nothingMoving();
  for (const element of movedBetween(...again)) moving.places.add(element);
  expect([...moving.places]).toEqual([1]);

  const followed = async (width: number) => {
    const sample = await look(width);
    unfollow(sample, moving);
    return sample;
  };
  const before = await search(look, { ...options, most: 400 });
  expect(before.isWhole).toBe(false);
  looked.length = 0;
  const after = await search(followed, { ...options, most: 400 });
  expect(after.isWhole).toBe(true);
  expect(looked.length).toBeLessThan(50);
  expect(stretchesOf(after.samples).map(({ min }) => min)).toEqual([280, 600]);
});
