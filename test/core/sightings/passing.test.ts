import { sceneOf } from '../../../src/core/layout/scene.js';
import { FLAG_CONTROL } from '../../../src/core/layout/snapshot.js';
import { passingDoubts, passingWords, type Passing } from '../../../src/core/sightings/passing.js';
import { CARD, line, renderOf, WHITE } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const PAGE = { width: 400, height: 800, scrollHeight: 3000, bodyHeight: 3000 };
const bar = (style: Readonly<Record<string, string>>, more: Partial<Node> = {}): Node => ({
  tag: 'header',
  box: [0, 0, 400, 50],
  style: { position: 'sticky', top: '0px', ...style },
  lines: [line(16, 15, 150, 'Lantern Isles')],
  ...more,
});
const links = [0, 1].map((i): Node => ({
  tag: 'a',
  box: [200 + 60 * i, 15, 50, 20],
  flags: FLAG_CONTROL,
  style: { display: 'inline' },
}));
const words: Node = { tag: 'p', box: [16, 1000, 300, 20], lines: [line(16, 1000, 300)] };
const card = (style: Readonly<Record<string, string>>, width = 300): Node => ({
  tag: 'article',
  box: [0, 1200, width, 300],
  style: { ...CARD, ...style },
});

const doubts = (how: Passing['how'], nodes: readonly Node[], page = PAGE) => {
  const { view } = renderOf(page, nodes);
  return passingDoubts(view, how).map(
    ({ cover, under, passing }) => `${view.tag(cover)} on ${view.tag(under)} at ${passing!.scrolled}`,
  );
};

test('words without a ground, at the scroll position at which others are in the middle of them', () => {
  expect(doubts('through', [bar({}), words])).toEqual(['header on p at 985']);
  expect(doubts('over', [bar({}), words])).toEqual([]);
});

test('a layer of the page that passes over a bar, when the bar is in the middle of it', () => {
  expect(doubts('over', [bar(WHITE), card({ position: 'relative' })])).toEqual(['article on header at 1325']);
  expect(doubts('over', [bar(WHITE, { children: links }), card({ position: 'relative' }, 400)])).toHaveLength(
    1,
  );
});

test.each<[string, Passing['how'], readonly Node[], typeof PAGE?]>([
  ['a ground of its own', 'through', [bar(WHITE), words]],
  [
    'a ground that hardly lets anything through',
    'through',
    [bar({ 'background-color': 'rgba(255, 255, 255, 0.7)' }), words],
  ],
  ['frosted glass', 'through', [bar({ 'backdrop-filter': 'blur(8px)' }), words]],
  ['colours that turn with what is under them', 'through', [bar({ 'mix-blend-mode': 'difference' }), words]],
  ['words beside those that pass', 'through', [bar({}), { ...words, lines: [line(200, 1000, 100)] }]],
  [
    'a page that does not scroll',
    'through',
    [bar({}), words],
    { ...PAGE, scrollHeight: 810, bodyHeight: 810 },
  ],
  ['a bar that is in front', 'over', [bar({ ...WHITE, 'z-index': '2' }), card({ position: 'relative' })]],
  ['what passes under it', 'over', [bar(WHITE), card({})]],
  [
    'a title that a part as wide as the screen is drawn over',
    'over',
    [bar(WHITE), card({ position: 'relative' }, 400)],
  ],
  [
    'a part half as high as the screen',
    'over',
    [bar(WHITE, { box: [0, 0, 400, 400] }), card({ position: 'relative' })],
  ],
])('%s: no doubt', (_, how, nodes, page = PAGE) => {
  expect(doubts(how, nodes, page)).toEqual([]);
});

test('only what pixels show is told, once for bars that repeat', () => {
  const render = renderOf(PAGE, [bar({}), words]);
  const scene = sceneOf(render.view);
  expect(passingWords(scene, render, 'through')).toEqual([]);
  const [doubt] = passingDoubts(render.view, 'through');
  const look = {
    cover: render.view.uid(doubt!.cover),
    under: render.view.uid(doubt!.under),
    bar: render.view.uid(doubt!.passing!.bar),
    ink: 200,
  };
  render.view.snapshot.looks = [{ ...look, hidden: 2 }];
  expect(passingWords(scene, render, 'through')).toEqual([]);
  render.view.snapshot.looks = [{ ...look, hidden: 40 }];
  const [told] = passingWords(scene, render, 'through');
  expect(told).toMatchObject({
    node: doubt!.passing!.bar,
    severity: 'warning',
    shows: { scrolled: 985 },
    message:
      'While the page scrolls, its words pass through the text “Lantern Isles”, which stays on the screen without a ground of its own, on a 400 px wide screen.',
  });
});
