import { changesBetween, changesText } from '../../../src/core/sweep/changes.js';
import { SharedNumbers } from '../../../src/core/sweep/numbers.js';
import { restyled } from '../../../src/core/sweep/restyled.js';
import { traceOf, type Trace } from '../../../src/core/sweep/trace.js';
import { sceneOf } from '../../../src/core/layout/scene.js';
import { FLAG_CONTROL, FLAG_RENDERED } from '../../../src/core/layout/snapshot.js';
import { viewOf, type Node } from '../../support/snapshot.js';

const GRID = { display: 'grid' };
const item = (x: number, y: number, width = 100, id?: string): Node => ({
  tag: 'li',
  box: [x, y, width, 40],
  ...(id !== undefined && { id }),
  lines: [{ box: [x, y, 60, 19], text: 'Boat' }],
});
const listOf = (items: readonly Node[], style: Readonly<Record<string, string>> = GRID): Node => ({
  tag: 'ul',
  class: 'boats',
  box: [0, 0, 400, 200],
  style,
  children: items,
});

/** Traces of one page at two widths, which share their numbers. */
function twoOf(before: readonly Node[], after: readonly Node[]): [Trace, Trace] {
  const numbersOf = new SharedNumbers().copy();
  const trace = (children: readonly Node[], width: number) => {
    const view = viewOf({ width }, children);
    return traceOf(sceneOf(view), numbersOf(view), 'width');
  };
  return [trace(before, 600), trace(after, 601)];
}

const said = (before: readonly Node[], after: readonly Node[]) =>
  changesText(changesBetween(...twoOf(before, after)));

test('columns, rows and order are told of the container', () => {
  const below = listOf([item(0, 0), item(0, 50), item(0, 100)]);
  expect(said([below], [listOf([item(0, 0), item(110, 0), item(0, 50)])])).toBe(
    'ul.boats goes from 1 to 2 columns',
  );
  expect(
    said(
      [listOf([item(0, 0), item(110, 0), item(0, 50), item(0, 100)])],
      [listOf([item(0, 0), item(110, 0), item(0, 50), item(110, 50)])],
    ),
  ).toBe('ul.boats goes from 3 to 2 rows');
  expect(said([listOf([item(0, 0), item(0, 50)])], [listOf([item(0, 50), item(0, 0)])])).toBe(
    'ul.boats shows its parts in another order',
  );
});

test('a drawer that nobody sees has the same form, however it is laid out', () => {
  const drawer = (visibility: string, ...items: Node[]): Node[] => [
    {
      ...listOf(
        items.map((each) => ({ ...each, style: { visibility } })),
        { ...GRID, visibility },
      ),
    },
  ];
  const formsOf = (visibility: string) => {
    const [before, after] = twoOf(
      drawer(visibility, item(0, 0), item(0, 50)),
      drawer(visibility, item(0, 0), item(110, 0)),
    );
    return before.form === after.form;
  };
  expect(formsOf('hidden')).toBe(true);
  expect(formsOf('visible')).toBe(false);
});

test('of what appears the topmost is told, and repeated elements once with their number', () => {
  const aside = (hidden: boolean): Node => ({
    tag: 'aside',
    box: [0, 300, 400, 40],
    hidden,
    children: [item(0, 300)],
  });
  expect(said([aside(true)], [aside(false)])).toBe('aside appears');
  const cards = (position: string) =>
    [0, 1].map((i): Node => ({ tag: 'div', class: 'card', box: [0, 100 * i, 400, 40], style: { position } }));
  expect(said(cards('static'), cards('absolute'))).toBe('2 × div.card leave the flow');
});

test('links that take the place of a button are the menu', () => {
  const flags = FLAG_RENDERED | FLAG_CONTROL;
  const menu = (isOpen: boolean): Node[] => [
    { tag: 'button', id: 'more', box: [0, 0, 40, 40], flags: isOpen ? FLAG_CONTROL : flags, hidden: isOpen },
    {
      tag: 'nav',
      box: [0, 0, 300, 40],
      hidden: !isOpen,
      children: [0, 1, 2].map((i): Node => ({ tag: 'a', box: [80 * i, 0, 70, 40], flags })),
    },
  ];
  expect(said(menu(false), menu(true))).toBe('the menu nav is shown in place of its button');
  expect(said(menu(true), menu(false))).toBe('a button takes the place of the menu nav');
});

test('styles that jump are told, those that follow the width are not', () => {
  const heading = (size: string, transform: string, padding: number): Node => ({
    tag: 'h1',
    box: [0, 0, 400, 60],
    padding: [padding, padding, padding, padding],
    style: { 'font-size': size, transform },
  });
  const [before, after] = twoOf(
    [heading('28px', 'matrix(1, 0, 0, 1, 10.2, 0)', 8)],
    [heading('40px', 'matrix(1, 0, 0, 1, 10.4, 0)', 20)],
  );
  expect(restyled(before, after)).toEqual(['h1: font-size 28px → 40px', 'h1: padding 8 px → 20 px']);
});

test('a box that jumps without being restyled is told, what stands in it is not', () => {
  const pane = (x: number): Node => ({
    tag: 'section',
    box: [x, 0, 300, 60],
    children: [{ tag: 'p', box: [x, 0, 300, 20] }],
  });
  const [before, after] = twoOf([pane(0)], [pane(24)]);
  expect(restyled(before, after)).toEqual(['section: moves 24 px']);
});

test('elements keep their numbers in several copies, and where a script builds them anew', () => {
  const numbers = new SharedNumbers();
  const [first, second] = [numbers.copy(), numbers.copy()];
  const page = viewOf({ width: 600 }, [listOf([item(0, 0), item(0, 50)])]);
  expect([...first(page)]).toEqual([...second(page)]);
  // Other uids, the same places in the tree.
  const { nodes } = page.snapshot;
  const anew = viewOf({ width: 600 }, [listOf([item(0, 0), item(0, 50)])]);
  anew.snapshot.nodes.uid.forEach((uid, i) => (anew.snapshot.nodes.uid[i] = uid + nodes.count));
  expect([...first(anew)]).toEqual([...first(page)]);
});
