import { hardMask } from '../../../src/core/css/hard-mask.js';

const BOX = { x: 100, y: 50, width: 200, height: 40 };

test('a hard edge cuts where it stands, along the direction of the gradient', () => {
  const right = hardMask('linear-gradient(90deg, rgb(0, 0, 0) 60%, rgba(0, 0, 0, 0) 60%)', BOX)!;
  expect([right(215, 70), right(225, 70)]).toEqual([true, false]);
  const down = hardMask('linear-gradient(rgb(0, 0, 0) 0px, rgb(0, 0, 0) 30px, rgba(0, 0, 0, 0) 30px)', BOX)!;
  expect([down(110, 79), down(110, 81)]).toEqual([true, false]);
  const left = hardMask('linear-gradient(to left, rgb(0, 0, 0) 50%, rgba(0, 0, 0, 0) 50%)', BOX)!;
  expect([left(110, 70), left(290, 70)]).toEqual([false, true]);
});

test('what fades out, and what is no gradient of that kind, is no edge', () => {
  expect(hardMask('linear-gradient(rgb(0, 0, 0) 40%, rgba(0, 0, 0, 0))', BOX)).toBeNull();
  expect(hardMask('radial-gradient(rgb(0, 0, 0) 40%, rgba(0, 0, 0, 0) 40%)', BOX)).toBeNull();
  expect(hardMask('url("a.svg")', BOX)).toBeNull();
  expect(hardMask('none', BOX)).toBeNull();
  expect(
    hardMask('linear-gradient(90deg, rgb(0, 0, 0) 60%, rgba(0, 0, 0, 0) 60%)', { ...BOX, width: 0 }),
  ).toBeNull();
});
