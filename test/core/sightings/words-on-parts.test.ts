import { FLAG_PICTURE, FLAG_REPLACED } from '../../../src/core/layout/snapshot.js';
import { sceneOf } from '../../../src/core/layout/scene.js';
import {
  boxesOnParts,
  partDoubts,
  partsUnderWords,
  wordsOnParts,
} from '../../../src/core/sightings/words-on-parts.js';
import { CARD, line, renderOf } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

type Style = Readonly<Record<string, string>>;
const OPAQUE = { 'background-color': 'rgb(255, 240, 200)' };
const part = (box: Node['box'], children: readonly Node[], style: Style = {}): Node => ({
  tag: 'section',
  box,
  style,
  children,
});
const picture = (box: Node['box'], style: Style = {}): Node => ({
  tag: 'img',
  box,
  style,
  flags: FLAG_PICTURE | FLAG_REPLACED,
});
const card = (box: Node['box'], style: Style = {}): Node => ({
  tag: 'div',
  class: 'card',
  box,
  style: { ...CARD, ...OPAQUE, ...style },
});
const words = (box: Node['box'], style: Style = {}): Node => ({
  tag: 'p',
  box,
  style,
  lines: [line(box[0], box[1], 150, 'Built of granite')],
});

const item = (box: Node['box'], style: Style = {}) =>
  card(box, { 'z-index': 'auto', 'grid-area': 'auto', ...style });
const grid = (...items: readonly Node[]) => part([0, 0, 500, 72], items, { display: 'grid' });

const render = (...nodes: readonly Node[]) => renderOf({ width: 800 }, nodes);
const under = (...nodes: readonly Node[]) => {
  const made = render(...nodes);
  return partsUnderWords(sceneOf(made.view), made).map(({ message, severity }) => [severity, message]);
};

test('a picture or a card that has run out of its part, and under the words of the next one', () => {
  expect(under(part([0, 0, 200, 100], [picture([0, 0, 300, 100])]), words([216, 20, 200, 24]))).toEqual([
    [
      undefined,
      'Runs 100 px out of the right side of section, and under the text “Built of granite”, on an 800 px wide screen.',
    ],
  ]);
  expect(under(part([0, 0, 200, 60], [card([0, 0, 200, 100])]), words([0, 64, 200, 24]))).toEqual([
    [
      'warning',
      'In it, div.card runs 40 px out of the bottom, and under the text “Built of granite”, on an 800 px wide screen.',
    ],
  ]);
});

test('words that come after a part which a margin pulls up are no next column', () => {
  const pulled = (y: number) => [
    part(
      [0, 0, 500, 160],
      [
        picture([0, 0, 300, 100]),
        { tag: 'h2', id: 'head', box: [0, y - 40, 300, 30], margin: [-60, 0, 10, 0] },
        words([0, y, 200, 24]),
      ],
    ),
  ];
  expect(under(...pulled(90))).toEqual([]);
  const made = render(...pulled(90));
  const told = wordsOnParts(sceneOf(made.view), made, new Set());
  expect(told.map(({ node, message }) => [made.view.id(node), message])).toEqual([
    ['head', 'The text “Built of granite” was moved over the edge of img, on an 800 px wide screen.'],
  ]);
  const whole = render(...pulled(70));
  expect(wordsOnParts(sceneOf(whole.view), whole, new Set())).toEqual([]);
});

test('a picture wider than its column of text, and an item of a grid wider than its track', () => {
  const columns = part([0, 0, 500, 200], [picture([0, 0, 300, 100]), words([260, 20, 200, 24])]);
  expect(under(columns)).toHaveLength(1);
  const beside = words([216, 0, 200, 60], { 'grid-area': 'auto' });
  expect(under(grid(item([0, 0, 300, 60]), beside))).toEqual([
    [
      'warning',
      'Reaches into the next column, and under the text “Built of granite”, on an 800 px wide screen.',
    ],
  ]);
  const below = words([0, 48, 200, 24], { 'grid-area': 'auto' });
  expect(under(grid(item([0, 0, 180, 58]), below))).toEqual([
    [
      'warning',
      'In it, div.card reaches into the next row, and under the text “Built of granite”, on an 800 px wide screen.',
    ],
  ]);
});

test('items that were put into the same cells of a grid are meant to meet there', () => {
  const met = (a: string, b: string, style: Style = {}) =>
    under(
      grid(item([0, 0, 180, 58], { 'grid-area': a, ...style }), words([0, 48, 200, 24], { 'grid-area': b })),
    ).length;
  expect(met('1 / 1 / 3', '2 / 1 / 4')).toBe(0);
  expect(met('head', 'head')).toBe(0);
  expect(met('head', 'foot')).toBe(1);
  // Of one that the grid finds a place for.
  expect(met('1 / 1', 'auto')).toBe(1);
  expect(met('1 / 1', 'span 2')).toBe(1);
  expect(met('1 / 1', '2')).toBe(1);
  expect(met('head', 'foot', { 'z-index': '1' })).toBe(0);
  // Of an engine that can't tell.
  expect(met('', '')).toBe(0);
});

test('a card with words of its own that a margin pulls up under those before it; a bar without any marks them', () => {
  const pulled = (children: readonly Node[]): Node => ({
    ...card([0, 10, 400, 80]),
    margin: [-30, 0, 0, 0],
    children,
  });
  expect(under(words([0, 12, 200, 24]), pulled([words([20, 50, 200, 24])]))).toEqual([
    ['warning', 'Is pulled up by 30 px, and under the text “Built of granite”, on an 800 px wide screen.'],
  ]);
  expect(under(words([0, 12, 200, 24]), pulled([]))).toEqual([]);
});

const wide = picture([0, 0, 300, 100]);
test.each<[string, readonly Node[]]>([
  ['words that keep clear of it', [part([0, 0, 200, 100], [wide]), words([320, 20, 200, 24])]],
  [
    'words with a ground of their own over it',
    [
      part([0, 0, 200, 100], [wide]),
      { ...card([216, 0, 300, 60], { position: 'relative' }), children: [words([220, 20, 200, 24])] },
    ],
  ],
  [
    'words that were put there',
    [part([0, 0, 200, 100], [wide]), words([216, 20, 200, 24], { position: 'absolute' })],
  ],
  [
    'a picture that was put there',
    [
      part([0, 0, 200, 100], [picture([0, 0, 300, 100], { position: 'absolute' })]),
      words([216, 20, 200, 24]),
    ],
  ],
  ['a picture that is held', [part([0, 0, 300, 100], [wide]), words([216, 20, 200, 24])]],
  [
    'a picture laid under words by a part without a height',
    [part([0, 0, 300, 0], [wide]), words([20, 20, 200, 24])],
  ],
])('%s: not told', (_, nodes) => {
  expect(under(...nodes)).toEqual([]);
});

test('pixels tell whether a picture is clear where words stand', () => {
  const made = render(part([0, 0, 200, 100], [wide]), words([216, 20, 200, 24]));
  const [doubt] = partDoubts(made.view);
  const told = (ink: number, hidden: number) => {
    const [cover, below] = [made.view.uid(doubt!.cover), made.view.uid(doubt!.under)];
    made.view.snapshot.looks = [{ cover, under: below, ink, hidden }];
    return partsUnderWords(sceneOf(made.view), made).length;
  };
  expect(told(1500, 300)).toBe(1);
  expect(told(1500, 0)).toBe(0);
});

test('words that have run out of their part, onto one that is drawn', () => {
  const made = render(
    part(
      [0, 0, 300, 20],
      [{ ...words([0, 0, 300, 48]), lines: [line(0, 0, 150, 'Two'), line(0, 24, 150, 'lines')] }],
    ),
    card([0, 20, 300, 100]),
  );
  const [found, ...others] = wordsOnParts(sceneOf(made.view), made, new Set());
  expect(others).toEqual([]);
  expect(found!.message).toBe(
    'The text “lines” runs 19 px out of the bottom, onto div.card, on an 800 px wide screen.',
  );
  expect(made.view.tag(found!.node)).toBe('section');
  expect(wordsOnParts(sceneOf(made.view), made, new Set([found!.node]))).toEqual([]);
});

test('words of an ordinary size that a margin pulls over the edge of what is before them', () => {
  const over = (y: number, size: string, style: Style = {}, ...more: readonly Node[]) => {
    const text: Node = {
      ...words([0, y, 200, 24], { 'font-size': size, ...style }),
      margin: [-12, 0, 0, 0],
      lines: [{ box: [0, y, 150, 1.2 * Number.parseFloat(size)], text: 'Built of granite' }],
    };
    const made = render(card([0, 0, 300, 60]), text, ...more);
    return wordsOnParts(sceneOf(made.view), made, new Set()).map(({ message }) => message);
  };
  expect(over(49, '16px')).toEqual([
    'The text “Built of granite” was moved over the edge of div.card, on an 800 px wide screen.',
  ]);
  // Wholly on it, below it, large enough to be set so, or put there.
  expect(over(20, '16px')).toEqual([]);
  expect(over(60, '16px')).toEqual([]);
  expect(over(40, '32px')).toEqual([]);
  expect(over(49, '16px', { position: 'absolute' })).toEqual([]);
  // On other words, it is text that lies on text.
  expect(over(49, '16px', {}, words([60, 52, 200, 24]))).toEqual([]);
});

test('a card that has run out of its part, and over the rim of another one', () => {
  const made = render(part([0, 0, 200, 60], [card([0, 0, 300, 60])]), card([216, 0, 300, 60]));
  expect(boxesOnParts(sceneOf(made.view), made, new Set()).map(({ message }) => message)).toEqual([
    'Runs 100 px out of the right side of section, and over the rim of div.card, on an 800 px wide screen.',
  ]);
});
