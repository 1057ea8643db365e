import { repeatedSteps } from '../../../src/core/identity/repeats.js';
import { viewOf, type Node } from '../../support/snapshot.js';

const BOX = [0, 0, 100, 20] as const;
const node = (tag: string, classes = '', children: readonly Node[] = [], id = ''): Node => ({
  tag,
  box: BOX,
  children,
  ...(classes && { class: classes }),
  ...(id && { id }),
});
/** The steps of what stands in the body, in the page's order. */
const stepsOf = (...children: readonly Node[]) => repeatedSteps(viewOf({ width: 800 }, children)).slice(2);

test('cards of one row are the same thing, whatever state one of them is in', () => {
  const steps = stepsOf(
    node('div', 'card'),
    node('div', 'card'),
    node('div', 'card chosen'),
    node('div', 'card sold-out'),
  );
  expect(new Set(steps)).toEqual(new Set(['div.card']));
});

test('and so is what stands in the same place of each', () => {
  const card = (title: string) => node('article', 'card', [node('h3', title), node('p')]);
  const steps = stepsOf(card('title'), card('title'), card('title long'));
  expect(steps.filter((step) => step.startsWith('h3'))).toEqual(['h3.title', 'h3.title', 'h3.title']);
});

test('what has nothing in common is told apart', () => {
  const [first, second] = stepsOf(node('div', 'hero'), node('div', 'fares'));
  expect(first).not.toBe(second);
});

test('entries of a list are alike, with classes of their own or without', () => {
  const list = node('ul', 'stops', [node('li', 'first'), node('li'), node('li', 'last')]);
  const [, ...entries] = stepsOf(list);
  expect(new Set(entries)).toEqual(new Set(['li']));
});

test('ids name an element, and numbers in them repeated ones', () => {
  const steps = stepsOf(
    node('section', '', [], 'fares'),
    node('section', '', [], 'pier-1'),
    node('section', '', [], 'pier-12'),
  );
  expect(steps[0]).not.toBe(steps[1]);
  expect(steps[1]).toBe(steps[2]);
});
