import { colourAround } from '../../../src/core/layout/grounds.js';
import { leastGroundAlpha } from '../../../src/core/layout/paint.js';
import { renderOf } from '../../support/render.js';

/** A part with a background and words in it. */
function partWith(style: Record<string, string>) {
  const { view } = renderOf({ width: 400 }, [
    { tag: 'div', id: 'part', box: [0, 0, 400, 100], style, children: [{ tag: 'p', box: [0, 0, 400, 20] }] },
  ]);
  const words = Array.from({ length: view.count }, (_, i) => i).find((i) => view.tag(i) === 'p')!;
  return { view, part: view.parent(words), words };
}

const gradient = (...stops: readonly string[]) => ({
  'background-image': `linear-gradient(${stops.join(', ')})`,
});

test('a gradient whose stops nobody tells apart is a ground of one colour', () => {
  const colourOf = (style: Record<string, string>) => {
    const { view, words } = partWith(style);
    return colourAround(view, words);
  };
  expect(colourOf(gradient('rgb(255, 255, 255)', 'rgb(246, 248, 250)'))).toBe('rgb(255,255,255)');
  expect(colourOf(gradient('rgb(255, 255, 255)', 'rgb(120, 120, 120)'))).toBeNull();
  expect(colourOf(gradient('rgba(255, 255, 255, 0.5)', 'rgba(255, 255, 255, 0.5)'))).toBeNull();
  // A band of it is not all of the ground.
  expect(
    colourOf({ ...gradient('rgb(0, 0, 0)', 'rgb(0, 0, 0)'), 'background-size': '200px 100%' }),
  ).toBeNull();
  expect(colourOf({ 'background-color': 'rgb(1, 2, 3)' })).toBe('rgb(1, 2, 3)');
});

test('a ground is as solid as it is where it is most see-through', () => {
  const alphaOf = (style: Record<string, string>) => {
    const { view, part } = partWith(style);
    return leastGroundAlpha(view, part);
  };
  expect(alphaOf(gradient('rgba(0, 0, 0, 0.85)', 'rgba(0, 0, 0, 0.95)'))).toBeCloseTo(0.85);
  expect(alphaOf(gradient('rgba(0, 0, 0, 0)', 'rgb(0, 0, 0)'))).toBe(0);
  expect(
    alphaOf({ ...gradient('rgba(0, 0, 0, 0)', 'rgb(0, 0, 0)'), 'background-color': 'rgba(0, 0, 0, 0.5)' }),
  ).toBeCloseTo(0.5);
  expect(alphaOf({ ...gradient('rgb(0, 0, 0)', 'rgb(0, 0, 0)'), 'background-size': '100% 2px' })).toBe(0);
});
