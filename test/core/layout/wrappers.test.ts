import { unwrapped } from '../../../src/core/layout/wrappers.js';
import { FLAG_CONTROL } from '../../../src/core/layout/snapshot.js';
import { line } from '../../support/render.js';
import { viewOf, type Node } from '../../support/snapshot.js';

const INLINE = { display: 'inline' };

/** Rows: 0 html, 1 body, 2 the block, 3 what stands in its line. */
const owner = (more: Partial<Node>, block: Partial<Node> = {}) =>
  unwrapped(
    viewOf({ width: 800 }, [
      {
        tag: 'p',
        box: [0, 0, 100, 20],
        ...block,
        children: [
          {
            tag: 'span',
            box: [0, 0, 90, 20],
            style: INLINE,
            lines: [line(0, 0, 90, 'First boat at six')],
            ...more,
          },
        ],
      },
    ]),
    3,
  );

test('words in a nameless wrapper are those of the block around it', () => {
  expect(owner({})).toBe(2);
  expect(owner({ tag: 'x-words' })).toBe(2);
  expect(owner({ style: { display: 'contents' } })).toBe(2);
});

test.each<[string, Partial<Node>]>([
  ['with a name', { class: 'price' }],
  ['with an id', { id: 'price' }],
  ['that says something of its words', { tag: 'em' }],
  ['that is a control', { flags: FLAG_CONTROL }],
  ['that is a box', { style: { display: 'inline-block' } }],
  ['with a ground', { style: { ...INLINE, 'background-color': 'rgb(0, 0, 0)' } }],
  ['whose words are larger', { style: { ...INLINE, 'font-size': '30px' } }],
  ['whose words may not break', { style: { ...INLINE, 'white-space': 'nowrap' } }],
  ['that was moved', { style: { ...INLINE, position: 'relative', left: '20px' } }],
  ['whose letters are set closer', { says: 'First boat', setting: '400;normal;none;-2px;start;0px' }],
])('an inline element %s is one of its own', (_, more) => {
  expect(owner(more)).toBe(3);
});

test('what is set as the words around it are is no less a wrapper', () => {
  const set = { says: 'Boats', setting: '400;normal;none;-2px;start;0px' };
  expect(owner(set, set)).toBe(2);
});

test('wrappers in wrappers, and none of the page itself', () => {
  const inner: Node = { tag: 'span', box: [0, 0, 90, 20], style: INLINE };
  const view = viewOf({ width: 800 }, [{ ...inner, children: [inner] }]);
  expect(unwrapped(view, 3)).toBe(2);
});
