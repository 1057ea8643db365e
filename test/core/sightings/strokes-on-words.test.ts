import { sceneOf } from '../../../src/core/layout/scene.js';
import { strokesOnWords } from '../../../src/core/sightings/strokes-on-words.js';
import { line, renderOf, WHITE } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const MOVED = { position: 'absolute' };
const INK = { 'background-color': 'rgb(200, 0, 0)' };
/** Letters from 23 to 36. */
const words: Node = { tag: 'p', box: [20, 20, 200, 20], lines: [line(20, 20, 190)] };
const thin = (box: Node['box'], style: Readonly<Record<string, string>> = MOVED): Node => ({
  tag: 'i',
  box,
  style: { ...INK, ...style },
});
const RIM = Object.fromEntries(
  ['top', 'right', 'bottom', 'left'].map((side) => [`border-${side}-color`, 'rgb(200, 0, 0)']),
);
const frame = (y: number): Node => ({
  tag: 'div',
  box: [0, y, 300, 60],
  border: [3, 3, 3, 3],
  style: { ...RIM, ...MOVED },
});

const found = (...nodes: readonly Node[]) => {
  const render = renderOf({ width: 400 }, nodes);
  return strokesOnWords(sceneOf(render.view), render, []).map(({ node, message }) => [
    render.view.tag(node),
    message,
  ]);
};
const told = (size: string) =>
  `The text “Boats of the day” is crossed by a line over ${size}, on a 400 px wide screen.`;

test('a thin box along the letters or across them, and the rim of a box that they do not stand in', () => {
  expect(found(words, thin([0, 28, 400, 3]))).toEqual([['i', told('190 × 3 px')]]);
  expect(found(words, thin([100, 0, 4, 100]))).toEqual([['i', told('4 × 12 px')]]);
  expect(found(words, frame(27))).toEqual([['div', told('190 × 3 px')]]);
});

test('a line that the words are painted over shows through them, unless they have a ground of their own', () => {
  const behind = thin([0, 28, 400, 3], { ...MOVED, 'z-index': '-1' });
  expect(found(behind, words)).toHaveLength(1);
  expect(found(behind, { ...words, style: WHITE })).toEqual([]);
});

test.each<[string, readonly Node[]]>([
  ['a line under the feet of letters', [words, thin([0, 35, 400, 3])]],
  ['one beside them', [words, thin([216, 0, 4, 100])]],
  ['a thick bar', [words, thin([0, 24, 400, 12])]],
  ['one that the flow has put there', [words, thin([0, 28, 400, 3], {})]],
  ['a faint rim', [words, { ...frame(27), style: { ...MOVED, 'border-top-color': 'rgba(0, 0, 0, 0.1)' } }]],
  ['the rim round them', [{ ...frame(27), children: [words] }]],
  [
    'a line of their own, as long as they are: it strikes them out',
    [{ ...words, children: [thin([18, 28, 196, 2])] }],
  ],
])('%s: not told', (_, nodes) => {
  expect(found(...nodes)).toEqual([]);
});
