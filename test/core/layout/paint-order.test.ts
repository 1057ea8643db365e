import { PaintOrder } from '../../../src/core/layout/paint-order.js';
import { FLAG_REPLACED, FLAG_TOP_LAYER } from '../../../src/core/layout/snapshot.js';
import { viewOf, type Node } from '../../support/snapshot.js';

const box = [0, 0, 100, 100] as const;
const node = (id: string, style = {}, children: Node[] = [], more = {}): Node => ({
  tag: 'div',
  id,
  box,
  style,
  children,
  ...more,
});

/** Ids in the order in which their boxes are painted. */
function painted(children: Node[]): string {
  const view = viewOf({ width: 100 }, children);
  const order = new PaintOrder(view);
  const ids = Array.from({ length: view.count }, (_, i) => i).filter((i) => view.id(i) !== '');
  return ids
    .sort((a, b) => order.box[a]! - order.box[b]!)
    .map((i) => view.id(i))
    .join(' ');
}

test('CSS 2.1, appendix E: negative, blocks, floats, inline-blocks, positioned, positive', () => {
  const page = [
    node('positive', { position: 'absolute', 'z-index': '2' }),
    node('positioned', { position: 'relative' }),
    node('inline-block', { display: 'inline-block' }),
    node('float', { float: 'left' }),
    node('block'),
    node('negative', { position: 'absolute', 'z-index': '-1' }),
  ];
  expect(painted(page)).toBe('negative block float inline-block positioned positive');
});

test('what is generated after the content of an element comes after all of it', () => {
  const raised = { position: 'absolute' };
  const held = node('held', {}, [node('child', raised, [node('inner', raised)])]);
  const after = node('after', raised, [], { tag: '::after' });
  expect(painted([node('holder', {}, [after, held]), node('next', raised)])).toBe(
    'holder held child inner after next',
  );
});

test('a stacking context keeps its own together; a positioned box without z-index does not', () => {
  const inner = node('inner', { position: 'absolute', 'z-index': '9' });
  expect(painted([node('a', { opacity: '0.9' }, [inner]), node('b', { position: 'relative' })])).toBe(
    'a inner b',
  );
  expect(painted([node('a', { position: 'relative' }, [inner]), node('b', { position: 'relative' })])).toBe(
    'a b inner',
  );
});

test.each([
  [{ transform: 'matrix(1, 0, 0, 1, 0, 0)' }],
  [{ filter: 'blur(1px)' }],
  [{ isolation: 'isolate' }],
  [{ 'will-change': 'transform' }],
  [{ contain: 'paint' }],
  [{ 'mix-blend-mode': 'multiply' }],
  [{ position: 'fixed' }],
])('%p makes a stacking context', (style) => {
  const inner = node('inner', { position: 'absolute', 'z-index': '9' });
  expect(painted([node('a', style, [inner]), node('b', { position: 'relative', 'z-index': '1' })])).toBe(
    'a inner b',
  );
});

test('flex items take z-index without being positioned', () => {
  const row = node('row', { display: 'flex' }, [node('one', { 'z-index': '1' }), node('two')]);
  expect(painted([row])).toBe('row two one');
});

test('the top layer lies over everything', () => {
  const dialog = node('dialog', {}, [], { flags: FLAG_TOP_LAYER });
  expect(painted([dialog, node('high', { position: 'fixed', 'z-index': '999' })])).toBe('high dialog');
});

test('CSS 2.1, appendix E, 7.1: a block-level picture comes with the text, after the backgrounds of later blocks', () => {
  const picture = node('picture', { display: 'block' }, [], { tag: 'img', flags: FLAG_REPLACED });
  expect(painted([picture, node('block')])).toBe('block picture');
});

test('items are painted in the order that `order` gives them', () => {
  const row = (display: string) =>
    painted([node('row', { display }, [node('second', { order: '2' }), node('first', { order: '1' })])]);
  expect(row('flex')).toBe('row first second');
  expect(row('grid')).toBe('row first second');
  expect(row('block')).toBe('row second first');
});
