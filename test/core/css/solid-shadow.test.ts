import { solidShadowsIn } from '../../../src/core/css/solid-shadow.js';

test('the shadows with sharp edges that nothing is seen through', () => {
  expect(solidShadowsIn('rgb(0, 0, 0) 6px 8px 0px -2px')).toEqual([{ x: 6, y: 8, spread: -2 }]);
  expect(solidShadowsIn('rgba(0, 0, 0, 0.3) 0px 1px 0px 0px, rgb(9, 9, 9) 0px 0px 1px 4px')).toEqual([
    { x: 0, y: 0, spread: 4 },
  ]);
});

test.each(['none', '', 'rgb(0, 0, 0) 6px 6px 12px 0px', 'rgb(0, 0, 0) 6px 6px 0px 0px inset'])(
  '%p: none of them',
  (value) => {
    expect(solidShadowsIn(value)).toEqual([]);
  },
);
