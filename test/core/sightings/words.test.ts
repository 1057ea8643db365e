import { FLAG_CONTROL, FLAG_FIELD } from '../../../src/core/layout/snapshot.js';
import { andMore, capital, controlName, shortName, wordsIn } from '../../../src/core/sightings/words.js';
import { viewOf, type Node } from '../../support/snapshot.js';

const BOX = [0, 0, 100, 20] as const;
const says = (text: string) => ({ lines: [{ box: BOX, text }] });
/** Of the first element in the body. */
const of = <T>(name: (view: ReturnType<typeof viewOf>, i: number) => T, node: Partial<Node>): T =>
  name(viewOf({ width: 800 }, [{ tag: 'div', box: BOX, ...node }]), 2);

test.each([
  ['a', {}, 'link'],
  ['button', {}, 'button'],
  ['select', {}, 'list'],
  ['textarea', {}, 'field'],
  ['input', { flags: FLAG_CONTROL | FLAG_FIELD }, 'field'],
  ['input', { flags: FLAG_CONTROL }, 'control'],
])('a %s is told as what a reader uses, with its words where it has some', (tag, more, kind) => {
  expect(of(controlName, { tag, ...more })).toBe(`a ${kind}`);
  expect(of(controlName, { tag, ...more, ...says('Book now') })).toBe(`the ${kind} “Book now”`);
});

test('the first words in it, however deep; signs are no words, and what is long is begun', () => {
  const button: Partial<Node> = {
    children: [
      { tag: 'i', box: BOX, ...says('\ue001') },
      { tag: 'span', box: BOX, children: [{ tag: 'b', box: BOX, ...says('  Find   a boat ') }] },
    ],
  };
  expect(of(wordsIn, button)).toBe('Find a boat');
  const long = of(wordsIn, says('The evening boat waits for the last train from the mainland'));
  expect(long).toMatch(/^The evening boat .*…$/);
  expect(long.length).toBeLessThanOrEqual(40);
  expect(of(wordsIn, {})).toBe('');
});

test('an element is told by its id, else by two of its classes', () => {
  expect(of(shortName, { tag: 'nav', id: 'menu', class: 'wide open' })).toBe('nav#menu');
  expect(of(shortName, { class: 'card wide sold-out' })).toBe('div.card.wide');
  expect(of(shortName, {})).toBe('div');
});

test('how a sentence begins, and goes on for several', () => {
  expect(capital('the text')).toBe('The text');
  expect(andMore(0)).toEqual({ more: '', isMany: false });
  expect(andMore(3)).toEqual({ more: ' and 3 more', isMany: true });
});
