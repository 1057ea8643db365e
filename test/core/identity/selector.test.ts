import { escapeIdentifier, looksGenerated, SelectorWriter } from '../../../src/core/identity/selector.js';
import { viewOf, type Node } from '../../support/snapshot.js';

const box = [0, 0, 10, 10] as const;
const el = (tag: string, more: Partial<Node> = {}): Node => ({ tag, box, ...more });

function selectors(children: readonly Node[]): string[] {
  const view = viewOf({ width: 100 }, children);
  const writer = new SelectorWriter(view);
  return Array.from({ length: view.count }, (_, i) => writer.write(i));
}

test('every element gets a selector of its own', () => {
  const written = selectors([
    el('ul', { class: 'list', children: [el('li'), el('li'), el('li', { class: 'last' })] }),
    el('ul', { class: 'list', children: [el('li'), el('li')] }),
    el('p', { id: 'intro', children: [el('b'), el('b', { class: 'x y' }), el('b', { class: 'x' })] }),
  ]);
  expect(new Set(written).size).toBe(written.length);
  expect(written.slice(0, 2)).toEqual(['html', 'body']);
});

test('short where short is enough: an id, a class, a parent that says more than a bare tag', () => {
  const written = selectors([
    el('main', {
      children: [
        el('table', { class: 'fares' }),
        el('p', { id: 'note' }),
        el('div', { class: 'row', children: [el('a'), el('a')] }),
      ],
    }),
  ]);
  expect(written.slice(3)).toEqual([
    'table.fares',
    '#note',
    'div.row',
    'div.row > a:nth-of-type(1)',
    'div.row > a:nth-of-type(2)',
  ]);
});

test('a class that another element also has does not make a selector unique', () => {
  const written = selectors([el('p', { class: 'a' }), el('p', { class: 'a b' })]);
  expect(written[2]).toBe('p.a:nth-of-type(1)');
  expect(written[3]).toBe('p.a.b');
});

test('names that a build made up are not used', () => {
  expect(['css-1x2y3z4', 'Card_title__a8Xk2', ':r1:', 'item-20391'].map(looksGenerated)).toEqual([
    true,
    true,
    true,
    true,
  ]);
  expect(['card', 'btn-primary', 'col-2', 'h1-title', 'nav__item'].map(looksGenerated)).toEqual([
    false,
    false,
    false,
    false,
    false,
  ]);
});

test('identifiers are serialised as CSSOM says', () => {
  expect(escapeIdentifier('md:w-1/2')).toBe('md\\:w-1\\/2');
  expect(escapeIdentifier('2col')).toBe('\\32 col');
  expect(escapeIdentifier('-')).toBe('\\-');
  expect(escapeIdentifier('größe')).toBe('größe');
});
