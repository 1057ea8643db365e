import type { Sample } from './sample.js';
import { formText, withoutForms, type Trace } from './trace.js';

/** What of a page is not of the size of its window alone, by elements' numbers: a search does not follow it. */
export interface Moving {
  /** Stand elsewhere, or are of another size, at each look. */
  readonly places: Set<number>;
  /** Are of another form at each look. */
  readonly forms: Set<number>;
  /** Show something else at each look, as a carousel does: nothing that is in them is followed. */
  readonly shows: Set<number>;
}

export const nothingMoving = (): Moving => ({ places: new Set(), forms: new Set(), shows: new Set() });

export const isAnyMoving = ({ places, forms, shows }: Moving): boolean =>
  places.size + forms.size + shows.size > 0;

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

/** What holds more of a page than this shows nothing by itself: something in it does. */
const MOST_OF_PAGE = 0.5;

/** Notes what is of another form in two layouts of one width, though nothing was done between that could have changed it. */
export function noteChanging(first: Sample, second: Sample, moving: Moving): void {
  if (!first.trace || !second.trace) return;
  const traces = [first.trace, second.trace] as const;
  const parents = new Map(traces.flatMap((trace) => parentsIn(trace)));
  const held = heldBy(parents, traces);
  const most = MOST_OF_PAGE * Math.max(...traces.map(({ forms }) => forms.size));
  const isLarge = (element: number) => (held.get(element) ?? 0) > most;
  const changed = changedBetween(...traces);
  const tops = [...changed].filter(
    (element) =>
      !isLarge(element) && !ancestors(parents, element).some((each) => changed.has(each) && !isLarge(each)),
  );
  for (const element of changed) if (isLarge(element)) moving.forms.add(element);
  for (const element of tops) {
    const parent = parents.get(element) ?? -1;
    // One came in the place of another: the next one that comes is not there yet.
    const isExchanged = tops.some(
      (other) => parents.get(other) === parent && isSeenIn(traces[0], other) !== isSeenIn(traces[0], element),
    );
    moving.shows.add(isExchanged && parent >= 0 && !isLarge(parent) ? parent : element);
  }
}

function changedBetween({ forms: a }: Trace, { forms: b }: Trace): Set<number> {
  const textIn = (forms: Trace['forms'], element: number) => {
    const form = forms.get(element);
    return form && formText(element, form);
  };
  return new Set([...a.keys(), ...b.keys()].filter((element) => textIn(a, element) !== textIn(b, element)));
}

function isSeenIn({ forms }: Trace, element: number): boolean {
  return forms.get(element)?.isSeen === true;
}

function parentsIn({ view, numbers }: Trace): (readonly [number, number])[] {
  const found: (readonly [number, number])[] = [];
  for (let i = 0; i < view.count; i++) {
    const parent = view.parent(i);
    if (parent >= 0) found.push([numbers[i]!, numbers[parent]!]);
  }
  return found;
}

/** By the element, how many of those that are followed are in it. */
function heldBy(parents: ReadonlyMap<number, number>, traces: readonly Trace[]): Map<number, number> {
  const held = new Map<number, number>();
  for (const element of new Set(traces.flatMap(({ forms }) => [...forms.keys()])))
    for (const around of ancestors(parents, element)) held.set(around, (held.get(around) ?? 0) + 1);
  return held;
}

function ancestors(parents: ReadonlyMap<number, number>, element: number): number[] {
  const found: number[] = [];
  for (let at = parents.get(element); at !== undefined; at = parents.get(at)) found.push(at);
  return found;
}

/** Leaves what moves by itself out of a layout: where it stands and what it shows says nothing of the width. */
export function unfollow(sample: Sample, moving: Moving): void {
  if (!sample.trace || !isAnyMoving(moving)) return;
  const { trace } = sample;
  const left = new Set([...moving.forms, ...shownIn(trace, moving.shows)]);
  const without = <T>(all: ReadonlyMap<number, T>, those: ReadonlySet<number>) =>
    new Map([...all].filter(([element]) => !those.has(element) && !left.has(element)));
  sample.trace = {
    ...trace,
    places: without(trace.places, moving.places),
    forms: without(trace.forms, left),
  };
  if (left.size > 0) sample.form = withoutForms(sample.form, left);
}

/** Those elements and all that is in them. */
function shownIn({ view, numbers }: Trace, shows: ReadonlySet<number>): number[] {
  if (shows.size === 0) return [];
  const isIn = new Uint8Array(view.count);
  const found: number[] = [];
  for (let i = 0; i < view.count; i++) {
    const parent = view.parent(i);
    if (!shows.has(numbers[i]!) && !(parent >= 0 && isIn[parent])) continue;
    isIn[i] = 1;
    found.push(numbers[i]!);
  }
  return found;
}
