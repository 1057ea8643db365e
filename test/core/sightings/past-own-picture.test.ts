import { boxOverflow } from '../../../src/core/rules/overflow/box-overflow.js';
import { line, renderOf } from '../../support/render.js';

const WHITE = { color: 'rgb(255, 255, 255)' };
const PHOTO = {
  'background-image': 'url("sea.webp")',
  'background-size': '100%',
  'background-color': 'rgba(0, 0, 0, 0)',
};

/** White words in two lines on a ground; pixels show all of the first and nothing of the second, or what is given. */
function told(ground: Readonly<Record<string, string>>, seen: readonly number[] = [0, 400]) {
  const render = renderOf({ width: 400, height: 800 }, [
    {
      tag: 'header',
      id: 'top',
      box: [0, 0, 400, 200],
      style: ground,
      children: [0, 1].map((nth) => ({
        tag: 'p',
        box: [10, 20 + 100 * nth, 300, 24] as const,
        style: WHITE,
        lines: [line(10, 20 + 100 * nth, 200)],
      })),
    },
  ]);
  const doubts = boxOverflow.doubts!(render);
  render.view.snapshot.looks = doubts.map(({ cover, under }, i) => ({
    cover: render.view.uid(cover),
    under: render.view.uid(under),
    ink: 400,
    hidden: seen[i]!,
  }));
  const found = boxOverflow.check(render).map(({ node, severity }) => `${render.view.id(node)} ${severity}`);
  return { doubts: doubts.length, found };
}

test('white words below a photo that is too low, or on the white end of a gradient', () => {
  expect(told(PHOTO)).toEqual({ doubts: 2, found: ['top error'] });
  const split = { 'background-image': 'linear-gradient(rgb(20, 40, 60) 50%, rgb(255, 255, 255) 50%)' };
  expect(told(split)).toEqual({ doubts: 2, found: ['top error'] });
});

test('past a gradient that has a size of its own, and where a third of a line is lost', () => {
  const band = {
    'background-image': 'linear-gradient(rgb(20, 40, 60), rgb(60, 80, 90))',
    'background-color': 'rgba(0, 0, 0, 0)',
  };
  expect(told({ ...band, 'background-size': '100% 60px' })).toEqual({ doubts: 2, found: ['top error'] });
  expect(told({ ...band, 'background-size': 'auto' }).doubts).toBe(0);
  expect(told(PHOTO, [0, 140]).found).toEqual(['top error']);
  expect(told(PHOTO, [0, 100]).found).toEqual([]);
});

test('where all of them are read, or none, as where no picture came, nothing is told', () => {
  expect(told(PHOTO, [0, 0]).found).toEqual([]);
  expect(told(PHOTO, [400, 400]).found).toEqual([]);
});

test('nobody looks where the picture fills its box, or a dark colour lies under it', () => {
  expect(told({ ...PHOTO, 'background-size': 'cover' })).toEqual({ doubts: 0, found: [] });
  expect(told({ ...PHOTO, 'background-color': 'rgb(20, 40, 60)' })).toEqual({ doubts: 0, found: [] });
  const dark = { 'background-image': 'linear-gradient(rgb(20, 40, 60), rgb(60, 80, 90))' };
  expect(told(dark)).toEqual({ doubts: 0, found: [] });
});
