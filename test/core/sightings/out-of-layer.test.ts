import { boxOverflow } from '../../../src/core/rules/overflow/box-overflow.js';
import { line, renderOf } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const PAGE = { width: 400, height: 800 };
const WHITE = { color: 'rgb(255, 255, 255)' };

/** A picture of 100 px with white words on it, placed or in the flow, and as many lines as are given. */
const picture = (
  more: Partial<Node>,
  lines: NonNullable<Node['lines']>,
  words: Partial<Node> = {},
): Node => ({
  tag: 'figure',
  id: 'top',
  box: [0, 0, 400, 100],
  children: [
    { tag: 'img', id: 'sea', box: [0, 0, 300, 100], ...more },
    { tag: 'p', id: 'words', box: [10, 10, 280, 120], style: WHITE, lines, ...words },
  ],
});
const first = line(10, 10, 200, 'Boats of the day');
const below = line(10, 130, 200, 'and of the night');

/** What is told where pixels show so much ink of which so much can't be made out. */
function told(nodes: readonly Node[], ink = 400, hidden = 400) {
  const render = renderOf(PAGE, nodes);
  render.view.snapshot.looks = boxOverflow.doubts!(render).map(({ cover, under }) => ({
    cover: render.view.uid(cover),
    under: render.view.uid(under),
    ink,
    hidden,
  }));
  return boxOverflow
    .check(render)
    .map(({ node, severity, by, message }) => `${render.view.id(node)} ${severity} ${by?.axis} ${message}`);
}

test('white words below the picture on which the first of them are read, white on white', () => {
  expect(told([picture({}, [first, below])])).toEqual([
    "words error y The text “and of the night” runs past the end of img#sea, on which it could be read, and can't be seen, on a 400 px wide screen.",
  ]);
  const placed = { style: { position: 'absolute', top: '0px', 'z-index': '-1' } };
  expect(told([picture(placed, [first, below])])[0]).toMatch(/^sea error y/);
});

test('the end of a line beside it', () => {
  expect(told([picture({}, [first, line(10, 40, 350, 'and of the whole long night')])])[0]).toMatch(
    /^words error x .*“and of the whole long night” runs past the end of img#sea/,
  );
});

test('pixels decide: shadows and veils of words are not in their colour', () => {
  expect(told([picture({}, [first, below])], 400, 200)).toEqual([]);
  expect(told([picture({}, [first, below])], 400, 4)).toEqual([]);
});

test('nothing is in doubt where no words are read on a layer, or in another colour, or within it', () => {
  const doubts = (...nodes: readonly Node[]) => boxOverflow.doubts!(renderOf(PAGE, nodes)).length;
  expect(doubts(picture({}, [below]))).toBe(0);
  expect(doubts(picture({}, [first, below], { style: { color: 'rgb(20, 20, 20)' } }))).toBe(0);
  expect(doubts(picture({}, [first, line(10, 40, 200)]))).toBe(0);
  // Words of another text, which only the page holds together.
  const other: Node = { tag: 'p', box: [10, 200, 280, 20], style: WHITE, lines: [line(10, 200, 90)] };
  expect(doubts(picture({}, [first]), other)).toBe(0);
  expect(doubts(picture({}, [first, below]))).toBe(1);
});
