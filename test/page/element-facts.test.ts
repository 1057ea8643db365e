import { FLAG_TEXT } from '../../src/core/layout/snapshot.js';

/** What the modules of the page look up when they are loaded: accessors of the DOM's own prototypes. */
const bare = function bare() {
  return null;
};
for (const name of ['children', 'childNodes', 'lastChild', 'parentElement', 'id', 'style'])
  Object.defineProperty(bare.prototype, name, { get: () => null, configurable: true });
Object.assign(globalThis, { Element: bare, Node: bare, HTMLElement: bare });

const { childrenAmong, namesOf, wordsFlag } = await import('../../src/page/element-facts.js');
const { hasEdges, insetBy, sidesOf } = await import('../../src/page/boxes.js');

const element = (localName: string, attributes: Readonly<Record<string, string>> = {}) =>
  ({ localName, getAttribute: (name: string) => attributes[name] ?? null }) as unknown as Element;
const text = (data: string) => ({ data }) as Text;

test('children have their places among those of their tag; the only one of its tag has none', () => {
  const [a, b, c] = [element('p'), element('ul'), element('p')];
  expect(childrenAmong([a, b, c]).map(({ nth }) => nth)).toEqual([1, 0, 2]);
  // Of a slot's elements, among the children of their own parent.
  expect(childrenAmong([c], [a, b, c])).toEqual([{ element: c, nth: 2 }]);
  expect(childrenAmong([])).toEqual([]);
});

test('names are told as they are written, white space folded', () => {
  expect(namesOf(element('p', { id: 'fares', class: '  card\n  wide ' }))).toEqual({
    id: 'fares',
    classes: 'card wide',
  });
  expect(namesOf(element('p'))).toEqual({ id: '', classes: '' });
});

test('words come and go by what is written into texts', () => {
  expect(wordsFlag([text(' \n\t')])).toBe(0);
  expect(wordsFlag([text(' '), text(' 07:10')])).toBe(FLAG_TEXT);
  expect(wordsFlag([])).toBe(0);
});

test('a box without its edges: those of its own row', () => {
  const column = [9, 9, 9, 9, 1, 2, 3, 4, 0, 0, 0, 0];
  const box = { x: 10, y: 20, width: 100, height: 50 };
  expect(insetBy(box, column, 1)).toEqual({ x: 14, y: 21, width: 94, height: 46 });
  expect([0, 1, 2].map((row) => hasEdges(column, row))).toEqual([true, true, false]);
  expect(sidesOf(box)).toEqual({ left: 10, right: 110 });
});
