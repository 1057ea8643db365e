import { boxOverflow } from '../../../src/core/rules/overflow/box-overflow.js';
import { FLAG_PICTURE, FLAG_REPLACED } from '../../../src/core/layout/snapshot.js';
import { line, renderOf } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const DARK = 'rgb(20, 40, 60)';

/** A dark part of a band, on the right, and words of a colour in the band. */
const band = (color: string, part: Partial<Node> = {}, words: Partial<Node> = {}): Node => ({
  tag: 'div',
  box: [0, 0, 400, 100],
  children: [
    { tag: 'i', id: 'part', box: [200, 0, 200, 100], style: { 'background-color': DARK }, ...part },
    { tag: 'p', id: 'words', box: [10, 10, 380, 24], style: { color }, lines: [line(10, 10, 300)], ...words },
  ],
});

/** What is told where pixels show ink of which nothing can be made out, or half. */
function told(node: Node, hidden = 400) {
  const render = renderOf({ width: 400, height: 800 }, [node]);
  render.view.snapshot.looks = boxOverflow.doubts!(render).map(({ cover, under }) => ({
    cover: render.view.uid(cover),
    under: render.view.uid(under),
    ink: 400,
    hidden,
  }));
  return boxOverflow.check(render).map(({ node: at, severity, by, message }) => {
    const px = by && `${by.axis} ${by.px}`;
    return `${render.view.id(at)} ${severity} ${px} ${message}`;
  });
}

test('dark words whose end lies on something dark', () => {
  expect(told(band(DARK))).toEqual([
    "words error x 110 The text “Boats of the day” lies on i#part, which has its colour, and can't be seen there, on a 400 px wide screen.",
  ]);
  const placed = { style: { 'background-color': DARK, position: 'absolute', 'z-index': '-1' } };
  expect(told(band(DARK, placed))[0]).toMatch(/^part error x 110/);
});

test('where pixels show them, in another colour, beside it, or on a ground of their own, nothing is told', () => {
  expect(told(band(DARK), 200)).toEqual([]);
  expect(told(band('rgb(200, 40, 0)'))).toEqual([]);
  expect(told(band(DARK, { box: [320, 0, 80, 100] }))).toEqual([]);
  expect(told(band(DARK, {}, { style: { color: DARK, 'background-color': 'rgb(250, 250, 250)' } }))).toEqual(
    [],
  );
});

test('words that were put onto a picture on which pixels show nothing of them', () => {
  const picture: Partial<Node> = { tag: 'img', flags: FLAG_PICTURE | FLAG_REPLACED, style: {} };
  const pulled: Partial<Node> = { margin: [-20, 0, 0, 0] };
  expect(told(band('rgb(34, 34, 34)', picture, pulled))).toEqual([
    expect.stringMatching(/^words error x 110/),
  ]);
  // On a picture on which they are read, and where they stand by themselves.
  expect(told(band('rgb(34, 34, 34)', picture, pulled), 100)).toEqual([]);
  expect(told(band('rgb(34, 34, 34)', picture))).toEqual([]);
  // Placed there, they are a caption.
  expect(
    told(band('rgb(34, 34, 34)', picture, { style: { color: 'rgb(34, 34, 34)', position: 'absolute' } })),
  ).toEqual([]);
  // White on the white page as well.
  expect(told(band('rgb(250, 250, 250)', picture, pulled))).toEqual([]);
});

test('words in the colour of what they stand in are somebody’s will', () => {
  const inside: Node = {
    tag: 'div',
    box: [0, 0, 400, 100],
    style: { 'background-color': DARK },
    children: [{ tag: 'p', box: [10, 10, 200, 24], style: { color: DARK }, lines: [line(10, 10, 120)] }],
  };
  expect(told(inside)).toEqual([]);
});
