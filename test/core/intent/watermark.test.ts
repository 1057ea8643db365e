import { isWatermark, isWatermarkUnder } from '../../../src/core/intent/watermark.js';
import { sceneOf, type Ink, type Scene } from '../../../src/core/layout/scene.js';
import { CARD } from '../../support/render.js';
import { viewOf, type Node } from '../../support/snapshot.js';

const words = (id: string, size: number, color: string, more: Partial<Node> = {}): Node => ({
  tag: 'p',
  id,
  box: [10, 10, 200, size],
  style: { 'font-size': `${size}px`, color },
  lines: [{ box: [10, 10, 180, 1.17 * size], text: id }],
  ...more,
});
/** A scene, and its inks of words in the order of the page. */
function inksOf(...nodes: Node[]): { scene: Scene; inks: Ink[] } {
  const scene = sceneOf(viewOf({ width: 400 }, nodes));
  return { scene, inks: scene.inks.filter(({ kind }) => kind === 'text') };
}

test.each<[string, Node, boolean]>([
  ['large and pale', words('01', 80, 'rgb(221, 227, 234)'), true],
  ['large and dark', words('01', 80, 'rgb(122, 143, 168)'), false],
  ['pale and not large', words('01', 20, 'rgb(221, 227, 234)'), false],
  [
    'pale by itself, on a ground that it stands out from',
    {
      tag: 'div',
      box: [0, 0, 300, 120],
      style: { ...CARD, 'background-color': 'rgb(17, 34, 51)' },
      children: [words('01', 80, 'rgb(221, 227, 234)')],
    },
    false,
  ],
])('letters that are %s', (_, node, isIt) => {
  const { scene, inks } = inksOf(node);
  expect(isWatermark(scene, inks[0]!)).toBe(isIt);
});

test('under others, letters are large by those', () => {
  const under = (size: number, color: string) => {
    const { scene, inks } = inksOf(words('under', size, color), words('over', 20, 'rgb(0, 0, 0)'));
    return isWatermarkUnder(scene, inks[0]!, inks[1]!, { x: 10, y: 10, width: 100, height: 20 });
  };
  expect([under(30, 'rgb(221, 227, 234)'), under(24, 'rgb(221, 227, 234)')]).toEqual([true, false]);
  // Of any size, what can't be seen takes nothing.
  expect([under(20, 'rgb(244, 246, 248)'), under(20, 'rgb(200, 200, 200)')]).toEqual([true, false]);
});
