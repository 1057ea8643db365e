import {
  FLAG_CONTROL,
  FLAG_PICTURE,
  FLAG_PICTURE_CONTENT,
  FLAG_REPLACED,
} from '../../../src/core/layout/snapshot.js';
import { sceneOf } from '../../../src/core/layout/scene.js';
import { marksOnWords } from '../../../src/core/sightings/marks-on-words.js';
import { line } from '../../support/render.js';
import { viewOf, type Node } from '../../support/snapshot.js';

const MOVED = { position: 'absolute' };
const words: Node = { tag: 'p', id: 'words', box: [0, 20, 200, 20], lines: [line(0, 20, 190)] };
const sign = (text: string, style: Readonly<Record<string, string>> = MOVED, width = 20): Node => ({
  tag: 'i',
  id: 'mark',
  box: [150, 20, width, 20],
  style,
  lines: [line(150, 20, width, text)],
});
const drawing = (side: number, style: Readonly<Record<string, string>> = MOVED): Node => ({
  tag: 'svg',
  id: 'mark',
  box: [140, 20, side, side],
  flags: FLAG_PICTURE | FLAG_REPLACED,
  style,
});

const TURNED = { transform: 'matrix(0.7071, 0.7071, -0.7071, 0.7071, 0, 0)' };
/** A chevron: a box of which the right and the lower border are drawn. */
const turned = (side: number, style: Readonly<Record<string, string>> = TURNED): Node => ({
  tag: 'i',
  id: 'mark',
  box: [150, 20, side, side],
  border: [0, 3, 3, 0],
  style: {
    ...MOVED,
    'border-right-color': 'rgb(0, 0, 0)',
    'border-bottom-color': 'rgb(0, 0, 0)',
    ...style,
  },
});

const found = (...nodes: readonly Node[]) => {
  const view = viewOf({ width: 400 }, nodes);
  return marksOnWords(sceneOf(view)).map(
    ({ cover, ink }) => `${view.id(cover.node)} on ${view.id(ink.node)}`,
  );
};

test('signs and drawings that were moved over words', () => {
  expect(found(words, sign('▼'))).toEqual(['mark on words']);
  expect(found(words, sign('★★★☆', MOVED, 60))).toEqual(['mark on words']);
  expect(found(words, drawing(24))).toEqual(['mark on words']);
  expect(found(words, drawing(140))).toEqual(['mark on words']);
  expect(found({ ...words, children: [sign('▼')] })).toEqual(['mark on words']);
  expect(found(words, turned(20))).toEqual(['mark on words']);
  // A picture that a style sheet adds.
  expect(found(words, { ...turned(20, {}), border: [0, 0, 0, 0], flags: FLAG_PICTURE_CONTENT })).toEqual([
    'mark on words',
  ]);
});

test.each<[string, readonly Node[]]>([
  ['letters', [words, sign('NEW')]],
  ['what the flow has put beside words', [words, sign('▼', {})]],
  ['what lies behind them', [sign('▼', { ...MOVED, 'z-index': '-1' }), words]],
  ['what hardly shows', [words, sign('▼', { ...MOVED, opacity: '0.2' })]],
  ['what keeps clear of them', [words, { ...sign('▼'), lines: [line(300, 20, 20, '▼')] }]],
  [
    'the sign of a button that lies there: the button does',
    [
      words,
      { tag: 'button', box: [140, 20, 40, 20], flags: FLAG_CONTROL, style: MOVED, children: [sign('✕')] },
    ],
  ],
  ['a box with turned borders that is as large as a card', [words, turned(90)]],
  ['a box with borders that is not turned: a line of it may run through words', [words, turned(20, {})]],
  ['a turned box with a ground', [words, turned(20, { ...TURNED, 'background-color': 'rgb(0, 0, 0)' })]],
])('%s: none of them', (_, nodes) => {
  expect(found(...nodes)).toEqual([]);
});
