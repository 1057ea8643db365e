import { movedBetween, nothingMoving, noteChanging, unfollow } from '../../../src/core/sweep/moving.js';
import { SharedNumbers } from '../../../src/core/sweep/numbers.js';
import type { Sample } from '../../../src/core/sweep/sample.js';
import { traceOf } from '../../../src/core/sweep/trace.js';
import { sceneOf } from '../../../src/core/layout/scene.js';
import { viewOf, type Node } from '../../support/snapshot.js';

const boat = (x: number): Node => ({
  tag: 'p',
  box: [x, 0, 60, 40],
  lines: [{ box: [x, 0, 60, 19], text: 'Boat' }],
});
const slide = (shown: boolean, boats: readonly number[]): Node => ({
  tag: 'section',
  box: [0, 0, 400, 40],
  style: { display: 'grid', visibility: shown ? 'visible' : 'hidden' },
  children: boats.map(boat).map((node) => ({ ...node, style: { visibility: shown ? 'visible' : 'hidden' } })),
});
/** A show of three slides, one of which is seen, beside a list that is as wide as the window has it. */
const pageOf = (shown: number, columns: number): Node[] => [
  {
    tag: 'div',
    box: [0, 0, 400, 40],
    children: [0, 1, 2].map((i) => slide(i === shown, [0, 100, 200].slice(0, i + 1))),
  },
  {
    tag: 'ul',
    box: [0, 60, 400, 200],
    style: { display: 'grid' },
    children: Array.from({ length: 20 }, (_, i) => i).map((i) => ({
      ...boat((i % columns) * 100),
      tag: 'li',
      box: [(i % columns) * 100, 60 + 50 * Math.floor(i / columns), 60, 40] as const,
    })),
  },
];

const numbersOf = new SharedNumbers().copy();
const sampleOf = (width: number, shown: number, columns: number): Sample => {
  const view = viewOf({ width }, pageOf(shown, columns));
  const trace = traceOf(sceneOf(view), numbersOf(view), 'width');
  return { width, form: trace.form, trace, seen: new Map(), containers: new Map() };
};

test('what holds slides is not followed, whichever comes next, and what stands beside it is', () => {
  const moving = nothingMoving();
  const [first, second] = [sampleOf(600, 0, 1), sampleOf(600, 1, 1)];
  expect(first.form).not.toBe(second.form);
  expect(movedBetween(first, second)).toEqual([]);
  noteChanging(first, second, moving);
  const third = sampleOf(600, 2, 1);
  const wider = sampleOf(601, 2, 2);
  for (const sample of [first, second, third, wider]) unfollow(sample, moving);
  expect(second.form).toBe(first.form);
  expect(third.form).toBe(first.form);
  expect(wider.form).not.toBe(third.form);
  const followed = [...third.trace!.forms.values()].map(({ node }) => third.trace!.view.tag(node));
  expect(followed).toContain('li');
  expect(followed).not.toContain('section');
});

test('of what holds most of a page only its own form is left out', () => {
  const moving = nothingMoving();
  noteChanging(sampleOf(600, 0, 1), sampleOf(600, 0, 2), moving);
  // The list holds most of what there is.
  expect(moving.forms.size).toBe(1);
  expect(moving.shows.size).toBe(0);
});
