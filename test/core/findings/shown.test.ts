import { shownParts } from '../../../src/core/findings/shown.js';
import { viewOf, type Node } from '../../support/snapshot.js';

const picture = (y: number): Node => ({ tag: 'img', box: [0, y, 40, 60] });

test('of several alike that are at fault, the one that is spoken of is outlined', () => {
  const view = viewOf({ width: 320 }, [picture(0), picture(100), picture(200)]);
  const [first, second, third] = Array.from({ length: view.count }, (_, i) => i).filter(
    (i) => view.tag(i) === 'img',
  ) as [number, number, number];
  const told = (rect = view.box(first)) =>
    shownParts(view, { node: first, related: [second, third], key: 'img', rect, by: null, message: '' })
      .fault;
  expect(told()).toEqual(view.box(first));
  expect(told(view.box(third))).toEqual(view.box(third));
  // Around all of them, and round none: the first.
  expect(told({ x: 0, y: 0, width: 40, height: 260 })).toEqual(view.box(first));
  expect(told({ x: 200, y: 0, width: 40, height: 60 })).toEqual(view.box(first));
});
