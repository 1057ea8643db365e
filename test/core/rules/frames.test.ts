import { FLAG_PICTURE, FLAG_REPLACED, FLAG_STILL_FRAME } from '../../../src/core/layout/snapshot.js';
import { pageOverflow } from '../../../src/core/rules/overflow/page-overflow.js';
import { renderOf, seenBy } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const PAGE = { width: 400 };

/** A frame from x 20 on, 300 px wide, with a border of 2 px, and a box in it. */
const frame = (
  inner: Node,
  {
    flags = 0,
    root = {},
    body = {},
    rootWidth = 296,
  }: {
    flags?: number;
    root?: Readonly<Record<string, string>>;
    body?: Readonly<Record<string, string>>;
    rootWidth?: number;
  } = {},
): Node => ({
  tag: 'iframe',
  id: 'frame',
  box: [20, 0, 300, 100],
  border: [2, 2, 2, 2],
  flags: flags | FLAG_REPLACED | FLAG_PICTURE,
  children: [
    {
      tag: 'html',
      box: [22, 2, rootWidth, 96],
      style: root,
      children: [{ tag: 'body', box: [22, 2, rootWidth, 96], style: body, children: [inner] }],
    },
  ],
});
const wide = (width: number, more: Partial<Node> = {}): Node => ({
  tag: 'div',
  id: 'wide',
  box: [22, 10, width, 20],
  style: { width: `${width}px` },
  ...more,
});
const seen = (node: Node) => seenBy(pageOverflow, PAGE, [node]);

test('what is too wide in a frame that scrolls is found there, by the px it sticks out of it', () => {
  expect(seen(frame(wide(500)))).toEqual(['#wide x 204']);
  const [sighting] = pageOverflow.check(renderOf(PAGE, [frame(wide(500))]));
  expect(sighting!.message).toBe(
    'Sticks out 204 px past the right edge of its 296 px wide frame, and the frame scrolls sideways.',
  );
});

test('what fits, is off by rounding or a border, or stands still in the frame is not', () => {
  expect(seen(frame(wide(296)))).toEqual([]);
  expect(seen(frame(wide(298.5)))).toEqual([]);
  expect(seen(frame(wide(500, { style: { position: 'fixed', width: '500px' } })))).toEqual([]);
});

test('a scroll bar at the side of the frame takes its room from it', () => {
  expect(seen(frame(wide(290), { rootWidth: 281 }))).toEqual(['#wide x 9']);
});

test('a frame that may not be scrolled, or cuts off at its sides, is of other rules', () => {
  expect(seen(frame(wide(500), { flags: FLAG_STILL_FRAME }))).toEqual([]);
  expect(seen(frame(wide(500), { root: { 'overflow-x': 'hidden' } }))).toEqual([]);
  expect(seen(frame(wide(500), { body: { 'overflow-x': 'hidden' } }))).toEqual([]);
});

test('a part that scrolls by itself in the frame keeps what is in it', () => {
  const part: Node = {
    tag: 'div',
    box: [22, 10, 296, 40],
    style: { 'overflow-x': 'auto' },
    children: [wide(500)],
  };
  expect(seen(frame(part))).toEqual([]);
});

test('a document from right to left ends at the left', () => {
  const inner = wide(500, { box: [-182, 10, 500, 20] });
  expect(seen(frame(inner, { root: { direction: 'rtl' } }))).toEqual(['#wide x 204']);
});
