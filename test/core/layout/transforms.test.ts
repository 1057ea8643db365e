import { displacementOf, isGrownInPlace } from '../../../src/core/layout/displace.js';
import { isUpright, rotationOf } from '../../../src/core/layout/rotation.js';
import { isMoved, movedBy } from '../../../src/core/layout/transforms.js';
import { viewOf } from '../../support/snapshot.js';

/** Rows: 0 html, 1 body, 2 the element, 200 by 40 px. */
const view = (style: Record<string, string>) =>
  viewOf({ width: 800 }, [{ tag: 'p', box: [0, 0, 200, 40], style }]);

test.each([
  [{ scale: '1.9' }],
  [{ scale: '1 0.5' }],
  [{ rotate: '-2deg' }],
  [{ rotate: 'x 45deg' }],
  [{ 'offset-path': 'path("M 60 14 L 120 14")' }],
  [{ transform: 'matrix3d(1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 8, 1)' }],
  [{ transform: 'matrix(1, 0, 0, 1, 0, -30)' }],
  [{ translate: '50%' }],
])('%s moves an element', (style) => {
  expect(isMoved(view(style), 2)).toBe(true);
  expect(displacementOf(view(style), 2)).toBe('transform');
});

test.each([
  [{ scale: '1' }],
  [{ rotate: '0deg' }],
  [{ scale: '2', transform: 'matrix(0.5, 0, 0, 0.5, 0, 0)' }],
  [{ rotate: '90deg', transform: 'matrix(0, -1, 1, 0, 0, 0)' }],
])('%s leaves it where it is', (style) => {
  expect(isMoved(view(style), 2)).toBe(false);
});

test('moves add up where nothing turns or scales them', () => {
  const both = view({ translate: '50% 10px', transform: 'matrix(1, 0, 0, 1, -20, 5)' });
  expect(movedBy(both, 2)).toEqual({ x: 80, y: 15 });
  expect(movedBy(view({ translate: '0px calc(100% - 48px)' }), 2)).toEqual({ x: 0, y: -8 });
  expect(movedBy(view({ scale: '1.2', translate: '50%' }), 2)).toBeNull();
  expect(movedBy(view({}), 2)).toEqual({ x: 0, y: 0 });
});

test('what is drawn larger and neither moved, turned nor taken out of the flow has grown in its place', () => {
  const grown = (style: Record<string, string>) => isGrownInPlace(view(style), 2);
  expect(grown({ scale: '1.1' })).toBe(true);
  expect(grown({ scale: '2', transform: 'matrix(0.8, 0, 0, 0.8, 0, 0)' })).toBe(true);
  expect(grown({ scale: '0.9' })).toBe(false);
  expect(grown({ scale: '1.1', position: 'absolute' })).toBe(false);
  expect(grown({ scale: '1.1', rotate: '4deg' })).toBe(false);
  expect(grown({ scale: '-1.5 1.5' })).toBe(false);
});

test('turns of both properties add up; a scale along one axis skews what is turned before it', () => {
  const turned = { rotate: '30deg', transform: 'matrix(0, 1, -1, 0, 0, 0)' };
  expect((rotationOf(view(turned), 2) * 180) / Math.PI).toBeCloseTo(120);
  expect(isUpright(view({ scale: '2 3' }), 2)).toBe(true);
  const skewed = { scale: '2 1', transform: 'matrix(0.7071, 0.7071, -0.7071, 0.7071, 0, 0)' };
  expect(rotationOf(view(skewed), 2)).toBeNaN();
});
