import { FLAG_CONTROL } from '../../../src/core/layout/snapshot.js';
import { isFreedInScroller, scrollerOf } from '../../../src/core/layout/scrollers.js';
import { controlOverlap } from '../../../src/core/rules/overlap/control-overlap.js';
import { covered } from '../../../src/core/rules/overlap/covered.js';
import { CARD, line, renderOf, seenBy, WHITE } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const SCROLLS = { 'overflow-x': 'auto', 'overflow-y': 'hidden' };

/** A block of code with a button over its end; the code is so wide. */
function codeWith(style: Record<string, string>, scroll: Node['scroll']): Node {
  return {
    tag: 'div',
    box: [0, 0, 400, 60],
    children: [
      {
        tag: 'pre',
        box: [0, 0, 400, 60],
        style,
        scroll,
        lines: [line(10, 10, 600, 'cross --from wickham --to far-isle')],
      },
      {
        tag: 'button',
        id: 'copy',
        box: [330, 5, 60, 30],
        flags: FLAG_CONTROL,
        style: { ...CARD, position: 'absolute', display: 'inline-block' },
      },
    ],
  };
}

test('a button over text that scrolls by under it leaves the text free', () => {
  const room = codeWith(SCROLLS, [400, 60, 700, 60]);
  expect(seenBy(controlOverlap, { width: 800 }, [room])).toEqual([]);
  expect(seenBy(covered, { width: 800 }, [room])).toEqual([]);
});

test('where the text can not be scrolled that far, or not at all, the button lies on it', () => {
  expect(seenBy(controlOverlap, { width: 800 }, [codeWith(SCROLLS, [400, 60, 410, 60])])).toEqual([
    '#copy y 12',
  ]);
  expect(seenBy(controlOverlap, { width: 800 }, [codeWith({}, [0, 0, 0, 0])])).toEqual(['#copy y 12']);
});

test('what is in the same scroll container moves along', () => {
  const inner: Node = { tag: 'p', box: [0, 0, 900, 40] };
  const outer: Node = {
    tag: 'div',
    box: [0, 0, 400, 60],
    style: { ...SCROLLS, ...WHITE },
    scroll: [400, 60, 900, 60],
    children: [inner, inner],
  };
  const { view } = renderOf({ width: 800 }, [outer]);
  expect([scrollerOf(view, 3), scrollerOf(view, 2), scrollerOf(view, 1)]).toEqual([2, 2, -1]);
  const part = { x: 300, y: 0, width: 50, height: 20 };
  expect(isFreedInScroller(view, 3, part, 4, part)).toBe(false);
  expect(isFreedInScroller(view, 3, part, 1, part)).toBe(true);
});
