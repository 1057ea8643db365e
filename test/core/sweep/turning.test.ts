import { search } from '../../../src/core/sweep/search.js';
import { spansByKey } from '../../../src/core/sweep/spans.js';
import { turnings } from '../../../src/core/sweep/turning.js';
import type { Sample, Sight } from '../../../src/core/sweep/sample.js';
import type { Form, Trace } from '../../../src/core/sweep/trace.js';

/** A layout of one container with rows, and defects by how far they go. */
function sample(
  width: number,
  rows: readonly number[],
  room: readonly number[],
  px: Record<string, number> = {},
) {
  const forms = new Map([[1, { rows, room } as unknown as Form]]);
  const seen = new Map(
    Object.entries(px).map(([key, far]): [string, Sight] => [key, { px: far, severity: 'error' }]),
  );
  const form = rows.join();
  const trace = { forms, places: new Map(), form } as unknown as Trace;
  return { width, form, trace, seen, containers: new Map() } satisfies Sample;
}

test('a row breaks where the room in it has gone', () => {
  const wide = [sample(352, [2, 1], [20, 90]), sample(384, [2, 1], [52, 122])];
  const [at] = turnings([sample(320, [1, 1, 1], [0, 0, 0]), ...wide], 0);
  expect(at).toBeCloseTo(331.99);
  // The second row: of the first, both hold as much.
  const [second] = turnings(
    [sample(320, [2, 1, 1], [4, 0, 0]), sample(352, [2, 2], [36, 8]), sample(384, [2, 2], [68, 40])],
    0,
  );
  expect(second).toBeCloseTo(343.99);
});

test('a row that is always filled, or whose rows are others further on, says nothing', () => {
  const narrow = sample(320, [1, 1], [0, 0]);
  expect(turnings([narrow, sample(352, [2], [0]), sample(384, [2], [0])], 0)).toEqual([]);
  expect(turnings([narrow, sample(352, [2], [20]), sample(384, [1, 1], [52, 0])], 0)).toEqual([]);
  expect(turnings([narrow, sample(352, [2], [20])], 0)).toEqual([]);
});

test('a defect ends where it has shrunk to nothing, or to what its rule begins to count at', () => {
  const before = [sample(300, [], [], { a: 20 }), sample(308, [], [], { a: 12 })];
  expect(turnings([...before, sample(340, [], [])], 1)).toEqual([319.5]);
  expect(turnings([...before, sample(319, [], [])], 1)).toEqual([317.5]);
  // It begins there seen from the other side.
  const after = [sample(340, [], [], { a: 4 }), sample(372, [], [], { a: 20 })];
  expect(turnings([sample(308, [], []), ...after], 0)).toEqual([333]);
  const steady = [sample(300, [], [], { a: 9 }), sample(308, [], [], { a: 9 })];
  expect(turnings([...steady, sample(340, [], [])], 1)).toEqual([]);
});

test.each([1, 3])('a defect that counts from %i px on is found to the px by few looks', async (least) => {
  const looked: number[] = [];
  const look = (width: number) => {
    looked.push(width);
    const px = 450 - width;
    return Promise.resolve(sample(width, [], [], px >= least ? { a: px } : {}));
  };
  const options = { from: 280, to: 600, begins: [], every: false, most: Infinity };
  const { samples } = await search(look, options);
  expect(spansByKey(samples).get('a')).toEqual([{ min: 280, max: 450 - least }]);
  // Eleven to begin with, both sides of a guess or two, and the middle of what they leave; halving the step and closing both parts takes seven.
  expect(looked.length).toBeLessThanOrEqual(11 + (least === 1 ? 2 : 5));
});
