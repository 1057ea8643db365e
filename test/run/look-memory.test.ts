import { LookMemory } from '../../src/run/look-memory.js';
import type { Doubt } from '../../src/core/sightings/doubt.js';
import { viewOf } from '../support/snapshot.js';

/** A word that moves to the right on its picture as the window grows. */
const viewAt = (size: number) =>
  viewOf({ width: size }, [
    { tag: 'img', box: [0, 0, size, 100] },
    { tag: 'p', box: [size / 2, 10, 80, 20], lines: [{ box: [size / 2, 10, 80, 20], text: 'Boat' }] },
  ]);
const doubtAt = (size: number): Doubt => ({
  cover: 2,
  under: 3,
  area: { x: size / 2, y: 10, width: 80, height: 20 },
});
const NUMBERS = Int32Array.from([10, 11, 12, 13, 14]);

function memoryOf(isExact = false) {
  const memory = new LookMemory(isExact);
  const at = (size: number) => memory.at({ view: viewAt(size), size, numbers: NUMBERS });
  const seen = (size: number, hidden: number) => {
    const doubt = doubtAt(size);
    const known = at(size);
    expect(known.recall(doubt)).toBeUndefined();
    known.keep(doubt, { cover: 0, under: 0, ink: 100, hidden });
  };
  return { seen, recalled: (size: number) => at(size).recall(doubtAt(size)) };
}

test('between two sizes that are near and show the same, as much is hidden, at the place of now', () => {
  const { seen, recalled } = memoryOf();
  seen(400, 0);
  expect(recalled(410)).toBeUndefined();
  seen(430, 3);
  const view = viewAt(410);
  expect(recalled(410)).toMatchObject({
    hidden: 0,
    cover: view.uid(2),
    under: view.uid(3),
    at: { x: 245, y: 20 },
  });
  // Nothing is told of what lies beyond.
  expect(recalled(440)).toBeUndefined();
});

test('where more is hidden on one side, where sizes lie far apart, and where each is to count, it is looked again', () => {
  const more = memoryOf();
  more.seen(400, 0);
  more.seen(420, 40);
  expect(more.recalled(410)).toBeUndefined();
  const far = memoryOf();
  far.seen(400, 0);
  far.seen(440, 0);
  expect(far.recalled(420)).toBeUndefined();
  const exact = memoryOf(true);
  exact.seen(400, 0);
  exact.seen(420, 0);
  expect(exact.recalled(410)).toBeUndefined();
});
