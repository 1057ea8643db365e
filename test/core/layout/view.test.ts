import { isFixed } from '../../../src/core/layout/viewport-layer.js';
import { clipsAxis, contentClipX } from '../../../src/core/layout/clip.js';
import { paints } from '../../../src/core/layout/visible.js';
import { viewOf, type Node } from '../../support/snapshot.js';

const box = [0, 0, 100, 50] as const;

function chain(...styles: Record<string, string>[]) {
  const node = styles.reduceRight<Node | null>(
    (child, style) => ({ tag: 'div', box, style, children: child ? [child] : [] }),
    null,
  );
  return viewOf({ width: 200 }, [node!]);
}

describe('containing element', () => {
  test.each([
    ['position', { position: 'relative' }],
    ['transform', { transform: 'matrix(1, 0, 0, 1, 0, 0)' }],
    ['filter', { filter: 'blur(1px)' }],
    ['contain', { contain: 'layout' }],
    ['will-change', { 'will-change': 'transform' }],
  ])('an absolute box is held by an ancestor with %s', (_, style) => {
    const view = chain(style, {}, { position: 'absolute' });
    expect(view.containingElement(4)).toBe(2);
  });

  test('a fixed box is held by the viewport, or by an ancestor that transforms, not by a positioned one', () => {
    const plain = chain({ position: 'relative' }, { position: 'fixed' });
    expect(plain.containingElement(3)).toBe(-1);
    expect(isFixed(plain, 3)).toBe(true);
    const moved = chain({ transform: 'matrix(1, 0, 0, 1, 5, 0)' }, { position: 'fixed' });
    expect(moved.containingElement(3)).toBe(2);
    expect(isFixed(moved, 3)).toBe(false);
  });

  test('boxes inside a fixed one are fixed with it; display: contents holds nothing', () => {
    const view = chain({ position: 'fixed' }, { display: 'contents' }, {});
    expect(isFixed(view, 4)).toBe(true);
    expect(view.containingElement(4)).toBe(2);
  });
});

describe('clips', () => {
  test('overflow of html goes to the viewport, and that of body when html has none', () => {
    const view = viewOf({ width: 200, overflowX: 'hidden' }, []);
    expect(clipsAxis(view, view.root, 'x')).toBe(false);
    expect(clipsAxis(view, view.body, 'x')).toBe(false);
  });

  test('clips meet along the containing chain', () => {
    const view = viewOf({ width: 200 }, [
      {
        tag: 'div',
        box: [10, 0, 100, 50],
        style: { 'overflow-x': 'hidden' },
        children: [
          {
            tag: 'div',
            box: [0, 0, 80, 50],
            border: [0, 5, 0, 5],
            style: { 'overflow-x': 'clip' },
            children: [{ tag: 'p', box }],
          },
        ],
      },
    ]);
    expect(contentClipX(view, 4, new Map())).toEqual({ left: 10, right: 75, scrolled: true });
  });

  test('an inline box clips nothing', () => {
    const view = chain({ display: 'inline', 'overflow-x': 'hidden' });
    expect(clipsAxis(view, 2, 'x')).toBe(false);
  });
});

test('a box paints unless it or what holds it is invisible', () => {
  expect(paints(chain({}), 2)).toBe(true);
  expect(paints(chain({ visibility: 'hidden' }), 2)).toBe(false);
  expect(paints(chain({ opacity: '0' }, {}), 3)).toBe(false);
});
