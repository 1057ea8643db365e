import { beginsAtFarEnd } from '../../../src/core/layout/scroll-origin.js';
import { unreachable } from '../../../src/core/rules/clipped/unreachable.js';
import { line, seenBy } from '../../support/render.js';
import { viewOf, type Node } from '../../support/snapshot.js';

function far(style: Record<string, string>): string {
  const view = viewOf({ width: 400 }, [{ tag: 'div', box: [0, 0, 100, 100], style }]);
  const { x, y } = beginsAtFarEnd(view, 2);
  return `${x ? 'right' : 'left'} ${y ? 'bottom' : 'top'}`;
}

test.each([
  ['left top', {}],
  ['right top', { direction: 'rtl' }],
  ['right top', { 'writing-mode': 'vertical-rl' }],
  ['left bottom', { 'writing-mode': 'vertical-lr', direction: 'rtl' }],
  ['left bottom', { display: 'flex', 'flex-direction': 'column-reverse' }],
  ['right top', { display: 'flex', 'flex-direction': 'row-reverse' }],
  ['left top', { display: 'flex', 'flex-direction': 'row-reverse', direction: 'rtl' }],
  ['left bottom', { display: 'inline-flex', 'flex-direction': 'row', 'flex-wrap': 'wrap-reverse' }],
  ['left top', { display: 'block', 'flex-direction': 'column-reverse' }],
])('begins at %s: %j', (corner, style) => {
  expect(far(style)).toBe(corner);
});

test('a talk that grows from below is read by scrolling up; what sinks below its foot is not', () => {
  const talk = (y: number): Node => ({
    tag: 'div',
    id: 'talk',
    box: [0, 100, 300, 100],
    style: {
      display: 'flex',
      'flex-direction': 'column-reverse',
      'overflow-x': 'auto',
      'overflow-y': 'auto',
    },
    children: [{ tag: 'p', id: 'words', box: [0, y, 300, 20], lines: [line(0, y, 120)] }],
  });
  expect(seenBy(unreachable, { width: 400, height: 800 }, [talk(20)])).toEqual([]);
  expect(seenBy(unreachable, { width: 400, height: 800 }, [talk(195)])).toEqual(['#words y 10']);
});
