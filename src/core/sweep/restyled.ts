import { px } from '../geometry/format.js';
import type { DeclaredProperty, StyleProperty } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import { shortName } from '../sightings/words.js';
import type { Trace } from './trace.js';

/** What follows the width by itself changes so little from one px to the next, CSS px. */
const DRIFT = 2;
/** Of the changes of style, so many are told. */
const MOST_TOLD = 3;
/** Told by the form of the layout, or seen as something else that is told. */
const TOLD_OTHERWISE = new Set([
  'display',
  'position',
  'float',
  'visibility',
  'order',
  'flex-grow',
  'grid-template-columns',
  'grid-template-rows',
  'will-change',
  'overflow-clip-margin',
]);

/**
 * What else than its form changes of a layout where the width grows by one px: styles and distances, elements of one name
 * together, those of most elements first; boxes that jump where nothing of theirs was restyled.
 */
export function restyled(before: Trace, after: Trace): string[] {
  const rowOf = new Map<number, NodeIndex>();
  before.numbers.forEach((number, node) => rowOf.set(number, node));
  /** By the text of the change, how many elements have it. */
  const found = new Map<string, number>();
  const add = (view: SnapshotView, node: NodeIndex, what: string) => {
    const text = `${shortName(view, node)}: ${what}`;
    found.set(text, (found.get(text) ?? 0) + 1);
  };
  for (let node = 0; node < after.view.count; node++) {
    const was = rowOf.get(after.numbers[node]!);
    if (was === undefined || !after.view.isElement(node)) continue;
    if (!after.view.isRendered(node) || !before.view.isRendered(was)) continue;
    const parent = after.view.parent(node);
    const parentWas = before.view.parent(was);
    for (const [property, from, to] of stylesThatDiffer(before.view, was, after.view, node)) {
      // What is inherited is told where it begins.
      const isInherited =
        parent >= 0 &&
        parentWas >= 0 &&
        after.view.style(parent, property) === to &&
        before.view.style(parentWas, property) === from;
      if (!isInherited) add(after.view, node, `${property} ${shown(from)} → ${shown(to)}`);
    }
    const room = distancesText(before.view, was, after.view, node);
    if (room !== null) add(after.view, node, room);
  }
  // Boxes go elsewhere where the form changes; that is told by the form.
  if (found.size === 0 && before.form === after.form) {
    for (const { view, node, what } of jumps(before, after)) add(view, node, what);
  }
  const all = [...found].sort(([, a], [, b]) => b - a);
  const told = all.slice(0, MOST_TOLD).map(([what, count]) => (count > 1 ? `${count} × ${what}` : what));
  const left = all.length - told.length;
  return left > 0 ? [...told, `and ${left} more`] : told;
}

function* stylesThatDiffer(
  viewWas: SnapshotView,
  was: NodeIndex,
  view: SnapshotView,
  node: NodeIndex,
): Iterable<[StyleProperty | DeclaredProperty, string, string]> {
  for (const name of view.snapshot.styleProperties as (StyleProperty | DeclaredProperty)[]) {
    if (TOLD_OTHERWISE.has(name)) continue;
    const from = viewWas.style(was, name);
    const to = view.style(node, name);
    // What matters to one of the two layouts only was not read in the other.
    if (from !== '' && to !== '' && from !== to && !isDrift(from, to)) yield [name, from, to];
  }
}

const NUMBER = /-?\d+(?:\.\d+)?(?:e-?\d+)?/g;

/** The same but for numbers that differ as little as they do from one width to the next. */
function isDrift(from: string, to: string): boolean {
  if (from.replace(NUMBER, '#') !== to.replace(NUMBER, '#')) return false;
  const numbers = to.match(NUMBER) ?? [];
  return (from.match(NUMBER) ?? []).every(
    (number, i) => Math.abs(Number(number) - Number(numbers[i])) < DRIFT,
  );
}

const LONGEST = 40;

function shown(value: string): string {
  return value.length > LONGEST ? `${value.slice(0, LONGEST - 1)}…` : value;
}

function distancesText(
  viewWas: SnapshotView,
  was: NodeIndex,
  view: SnapshotView,
  node: NodeIndex,
): string | null {
  for (const [name, from, to] of [
    ['padding', viewWas.paddings(was), view.paddings(node)],
    ['margin', viewWas.margins(was), view.margins(node)],
    ['border', viewWas.borders(was), view.borders(node)],
  ] as const) {
    const side = to.findIndex((length, i) => Math.abs(length - from[i]!) >= DRIFT);
    if (side >= 0) return `${name} ${px(from[side]!)} → ${px(to[side]!)}`;
  }
  return null;
}

/** The topmost boxes that are somewhere else, or of another size, than the width itself makes them. */
function jumps(before: Trace, after: Trace): { view: SnapshotView; node: NodeIndex; what: string }[] {
  const by = new Map<number, string>();
  for (const [element, [edge, size]] of after.places) {
    const was = before.places.get(element);
    if (!was) continue;
    const wider = size - was[1];
    const farther = edge - was[0];
    if (Math.abs(wider) >= DRIFT)
      by.set(element, `${px(Math.abs(wider))} ${wider > 0 ? 'wider' : 'narrower'}`);
    else if (Math.abs(farther) >= DRIFT) by.set(element, `moves ${px(Math.abs(farther))}`);
  }
  return [...by].flatMap(([element, what]) => {
    const { node } = after.forms.get(element)!;
    const holder = after.view.containingElement(node);
    const isWithin = holder >= 0 && by.has(after.numbers[holder]!);
    return isWithin ? [] : [{ view: after.view, node, what }];
  });
}
