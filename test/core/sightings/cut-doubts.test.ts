import { textClipped } from '../../../src/core/rules/clipped/text-clipped.js';
import { cutDoubts } from '../../../src/core/sightings/clipped.js';
import { line, renderOf } from '../../support/render.js';

/** A pill whose words begin so far from its left edge. */
const pill = (from: number) => {
  const radii = ['top-left', 'top-right', 'bottom-right', 'bottom-left'];
  return renderOf({ width: 400 }, [
    {
      tag: 'div',
      box: [0, 0, 300, 40],
      style: {
        'overflow-x': 'hidden',
        'overflow-y': 'hidden',
        ...Object.fromEntries(radii.map((corner) => [`border-${corner}-radius`, '20px'])),
      },
      lines: [line(from, 0, 200)],
    },
  ]);
};

test('letters that a round corner may cut are in doubt: neither those that it cuts, nor those that keep clear of it', () => {
  expect([-4, 2, 24].map((from) => cutDoubts(pill(from)).length)).toEqual([0, 1, 0]);
  expect([-4, 2, 24].map((from) => textClipped.check(pill(from)).length)).toEqual([1, 0, 0]);
});

test('a look tells whether a part of them is gone', () => {
  const render = pill(2);
  const [{ cover, under }] = cutDoubts(render) as [ReturnType<typeof cutDoubts>[number]];
  const told = (ink: number, hidden: number) => {
    render.view.snapshot.looks = [
      { cover: render.view.uid(cover), under: render.view.uid(under), ink, hidden },
    ];
    return textClipped.check(render).map(({ severity }) => severity);
  };
  expect(told(300, 20)).toEqual(['warning']);
  expect(told(300, 8)).toEqual([]);
  // Of a line of 12.5 em, half a letter.
  expect(told(900, 20)).toEqual(['warning']);
  expect(told(900, 16)).toEqual([]);
});
