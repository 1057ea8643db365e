import { setTimeout } from 'node:timers/promises';
import { movedBetween, noteChanging, unfollow, type Moving } from '../../core/sweep/moving.js';
import { isAlike, type Sample } from '../../core/sweep/sample.js';

/** Sizes that are looked at once more, on the way back. */
const BACK = 10;

export type Steadiness = 'same' | 'way' | 'time';

/**
 * Whether a page shows something else where its window comes to a size from the other side (`way`), or where it is looked at twice
 * (`time`).
 * @param samples that were come to from below, by and large
 * @param moving takes what stands elsewhere, and what shows something else, when it is looked at once more
 */
export async function steadinessOf(
  samples: readonly Sample[],
  inPlace: (size: number) => Promise<Sample>,
  moving: Moving,
): Promise<Steadiness> {
  const step = Math.max(1, Math.floor(samples.length / BACK));
  const back = samples.filter((_, i) => i % step === 0).reverse();
  let steadiness: Steadiness = 'same';
  for (const before of back) {
    // One after another: the same copy is come to from above each time.
    const again = await inPlace(before.width);
    unfollow(before, moving);
    for (const element of movedBetween(before, again)) moving.places.add(element);
    if (isAlike(again, before)) continue;
    const other = await otherwise(before, again, samples, inPlace);
    if (other === null) return 'way';
    noteChanging(before, again, moving);
    noteChanging(again, other, moving);
    steadiness = 'time';
  }
  return steadiness;
}

/** So often is a size come to from both sides: slides that go round are now and then as they were. */
const ROUNDS = 2;

/**
 * What is seen of a size from below and from above, where that is not what was seen from there before: it has gone on meanwhile, as the slides of
 * a carousel do. Null where it hangs on the way.
 */
async function otherwise(
  fromBelow: Sample,
  fromAbove: Sample,
  samples: readonly Sample[],
  inPlace: (size: number) => Promise<Sample>,
): Promise<Sample | null> {
  const ways = [
    [samples[0]!, fromBelow],
    [samples.at(-1)!, fromAbove],
  ] as const;
  for (let round = 0; round < ROUNDS; round++) {
    for (const [from, expected] of ways) {
      await inPlace(from.width);
      const seen = await inPlace(expected.width);
      if (!isAlike(seen, expected)) return seen;
    }
  }
  return null;
}

/** What moves by itself has moved on after so long. */
const MOVED_MS = 250;

/** Whether boxes stand elsewhere when one size is looked at twice. */
export async function movesByItself(
  size: number,
  inPlace: (size: number) => Promise<Sample>,
): Promise<boolean> {
  const first = await inPlace(size);
  await setTimeout(MOVED_MS);
  return movedBetween(first, await inPlace(size)).length > 0;
}
