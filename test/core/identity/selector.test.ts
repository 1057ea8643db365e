import { selectAll } from 'css-select';
import fc from 'fast-check';
import { parseDocument } from 'htmlparser2';
import { escapeIdentifier, looksGenerated } from '../../../src/core/identity/names.js';
import { SelectorWriter } from '../../../src/core/identity/selector.js';
import { signature } from '../../../src/core/identity/signature.js';
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
  expect(written[3]).toBe('p.b');
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

describe('on any page', () => {
  const names = fc.subarray(['card', 'is-open', 'a', 'b', 'col-6', 'mb-4', 'lead'], { maxLength: 3 });
  const { tree } = fc.letrec<{ tree: Node; children: Node[] }>((tie) => ({
    tree: fc
      .tuple(fc.constantFrom('div', 'p', 'section', 'nav', 'a', 'li'), names, fc.nat(30), tie('children'))
      .map(([tag, classes, id, children]) => ({
        tag,
        box,
        ...(classes.length > 0 && { class: classes.join(' ') }),
        ...(id < 4 && { id: `place-${id}` }),
        children,
      })),
    children: fc.oneof(
      { depthSize: 'small' },
      fc.constant<Node[]>([]),
      fc.array(tie('tree'), { maxLength: 4 }),
    ),
  }));

  /** The same page as a document, its elements in the order of the rows. */
  const markup = ({ tag, id, class: names, children = [] }: Node): string =>
    `<${tag}${id === undefined ? '' : ` id="${id}"`}${names === undefined ? '' : ` class="${names}"`}>${children.map(markup).join('')}</${tag}>`;

  test('a selector matches its element and nothing else, whoever reads it', () => {
    fc.assert(
      fc.property(fc.array(tree, { minLength: 1, maxLength: 5 }), (children) => {
        const written = selectors(children);
        // XML, since HTML would close a paragraph where a box begins in it.
        const page = `<html><body>${children.map(markup).join('')}</body></html>`;
        const all = selectAll('*', parseDocument(page, { xmlMode: true }));
        expect(written).toHaveLength(all.length);
        for (const [row, selector] of written.entries()) {
          const found = selectAll(selector, all.slice(0, 1));
          expect([selector, found.length, all.indexOf(found[0]!)]).toEqual([selector, 1, row]);
        }
      }),
      { numRuns: 100 },
    );
  });
});

test('a page that nests thousands of elements is written in no time', () => {
  let inner = el('div');
  for (let depth = 0; depth < 1000; depth++) inner = el('div', { children: [inner, el('b')] });
  const view = viewOf({ width: 100 }, [inner]);
  const writer = new SelectorWriter(view);
  expect(writer.write(view.count - 1)).toBe('body > div > b');
  expect(writer.write(view.count - 500)).toMatch(/^body > div > div/);
});

test('what is repeated has one signature, whatever the colour or state of one of it', () => {
  const card = (classes: string) =>
    el('div', {
      class: 'column',
      children: [el('div', { class: `card ${classes} shadow`, children: [el('b')] })],
    });
  const view = viewOf({ width: 100 }, [
    el('div', { class: 'row', children: [card('blue'), card('red marked'), card('blue')] }),
    el('ul', { children: [el('li', { class: 'now' }), el('li'), el('li')] }),
    el('div', { class: 'stage lead', children: [el('b')] }),
    el('aside', { id: 'note-1', children: [el('p', { class: 'x' })] }),
    el('aside', { id: 'note-2', children: [el('p', { class: 'x y' })] }),
  ]);
  const signatures = Array.from({ length: view.count }, (_, i) => signature(view, i));
  const of = (tag: string) => new Set(signatures.filter((_, i) => view.tag(i) === tag));
  expect(of('li').size).toBe(1);
  expect([...of('b')]).toEqual([
    'html>body>div.row>div.column>div.card.shadow>b',
    'html>body>div.stage.lead>b',
  ]);
  expect([...of('p')]).toEqual(['aside#note-0>p.x']);
});
