import { withWidths } from '../../../src/core/findings/widths.js';
import { findingsOfPage } from '../../../src/core/findings/group.js';
import type { Rule } from '../../../src/core/rules/rule.js';
import { renderOf } from '../../support/render.js';

/** Sees a defect on the renders of some widths, a mild one or not. */
function ruleFor(widths: readonly number[], mild: boolean): Rule {
  return {
    meta: { name: 'text-overlap', family: 'overlap', severity: 'error', summary: '' },
    check: ({ device, view }) =>
      widths.includes(device.width)
        ? [
            {
              node: view.root,
              related: [],
              key: 'k',
              rect: { x: 0, y: 0, width: 1, height: 1 },
              by: null,
              mild,
              message: '',
            },
          ]
        : [],
  };
}
const at = (...widths: number[]) => widths.map((width) => renderOf({ width }, []));
const severity = (widths: readonly number[], mild: boolean, ...rendered: number[]) =>
  findingsOfPage('home', at(...rendered), [ruleFor(widths, mild)])[0]!.severity;

test('a little of something at every width is likely meant; what begins at some width is a failure', () => {
  expect(severity([320, 800, 1280], true, 320, 800, 1280)).toBe('notice');
  expect(severity([320, 800], true, 320, 800, 1280)).toBe('error');
  expect(severity([320, 800, 1280], false, 320, 800, 1280)).toBe('error');
});

test('one or two widths say nothing', () => {
  expect(severity([320, 1280], true, 320, 1280)).toBe('error');
});

test('an empty list stays one', () => {
  expect(withWidths([], at(320))).toEqual([]);
});
