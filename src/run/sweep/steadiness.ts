import { setTimeout } from 'node:timers/promises';
import { movedBetween } from '../../core/sweep/moving.js';
import { showsSame, type Sample } from '../../core/sweep/sample.js';

/** Sizes that are looked at once more, on the way back. */
const BACK = 10;

export type Steadiness = 'same' | 'way' | 'time';

/**
 * Whether a page shows something else where its window comes to a size from the other side (`way`), or where it is looked at twice
 * (`time`).
 * @param samples that were come to from below, by and large
 * @param moving takes the numbers of elements that stand elsewhere when they are looked at once more
 */
export async function steadinessOf(
  samples: readonly Sample[],
  inPlace: (size: number) => Promise<Sample>,
  moving: Set<number>,
): Promise<Steadiness> {
  const step = Math.max(1, Math.floor(samples.length / BACK));
  const back = samples.filter((_, i) => i % step === 0).reverse();
  for (const before of back) {
    // One after another: the same copy is come to from above each time.
    const again = await inPlace(before.width);
    for (const element of movedBetween(before, again)) moving.add(element);
    if (again.form === before.form && showsSame(again, before)) continue;
    const once = await inPlace(before.width);
    return once.form === again.form && showsSame(once, again) ? 'way' : 'time';
  }
  return 'same';
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
