import type { Sample } from './sample.js';

/** Boxes are told to a fraction of a px. */
const MOVED_PX = 1;

/** The numbers of elements that stand elsewhere, or are of another size, in two layouts of one width. */
export function movedBetween(first: Sample, second: Sample): number[] {
  if (!first.trace || !second.trace) return [];
  const after = second.trace.places;
  return [...first.trace.places].flatMap(([element, place]) => {
    const again = after.get(element);
    const hasMoved = !again || place.some((length, i) => Math.abs(length - again[i]!) > MOVED_PX);
    return hasMoved ? [element] : [];
  });
}

/** Leaves what moves by itself out of a layout's places: where it stands says nothing of the width. */
export function unfollow(sample: Sample, moving: ReadonlySet<number>): void {
  if (!sample.trace || moving.size === 0) return;
  const places = new Map(sample.trace.places);
  for (const element of moving) places.delete(element);
  sample.trace = { ...sample.trace, places };
}
