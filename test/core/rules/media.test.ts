import { NO_DELIVERY } from '../../../src/core/delivery/delivery.js';
import { FLAG_PICTURE, FLAG_REPLACED } from '../../../src/core/layout/snapshot.js';
import { pictureBroken } from '../../../src/core/rules/media/picture-broken.js';
import { pictureOversized } from '../../../src/core/rules/media/picture-oversized.js';
import { pictureSoft } from '../../../src/core/rules/media/picture-soft.js';
import { pictureStretched } from '../../../src/core/rules/media/picture-stretched.js';
import type { Rule } from '../../../src/core/rules/rule.js';
import { renderOf, seenBy } from '../../support/render.js';

/** A picture of 300 × 200 px; the third number is how many pixels its file has for one px. */
function shown(
  rule: Rule,
  file: readonly [number, number, number],
  style = {},
  device = { dpr: 2 },
): string[] {
  const page = { width: 800, pictures: [[2, ...file]] as const };
  const image = {
    tag: 'img',
    id: 'i',
    box: [10, 10, 300, 200] as const,
    flags: FLAG_PICTURE | FLAG_REPLACED,
    style: { 'object-fit': 'fill', ...style },
  };
  return seenBy(rule, page, [image], device);
}

test('a picture is soft where the screen asks for more pixels than it has', () => {
  expect(shown(pictureSoft, [300, 200, 1])).toEqual(['#i']);
  expect(shown(pictureSoft, [300, 200, 2])).toEqual([]);
  expect(shown(pictureSoft, [300, 200, 1], {}, { dpr: 1 })).toEqual([]);
  // A ratio of 3 asks for no more than one of 2.
  expect(shown(pictureSoft, [600, 400, 1], {}, { dpr: 3 })).toEqual([]);
  expect(shown(pictureSoft, [300, 200, 1], { 'image-rendering': 'pixelated' })).toEqual([]);
  expect(shown(pictureSoft, [300, 200, 0])).toEqual([]);
});

test('object-fit decides how far the pixels are spread', () => {
  // A square file of 400 pixels fills 300 × 200 as 300 × 300, or stands in it as 200 × 200.
  expect(shown(pictureSoft, [400, 400, 1], { 'object-fit': 'cover' })).toEqual(['#i']);
  expect(shown(pictureSoft, [400, 400, 1], { 'object-fit': 'contain' })).toEqual([]);
});

test('a picture with over four times the pixels along both sides is oversized', () => {
  expect(shown(pictureOversized, [3000, 2000, 1])).toEqual(['#i']);
  expect(shown(pictureOversized, [1500, 1000, 1])).toEqual([]);
  expect(shown(pictureOversized, [3000, 2000, 1], {}, { dpr: 3 })).toEqual([]);
});

test('a picture out of its proportions, upright and with pixels', () => {
  expect(shown(pictureStretched, [300, 300, 1])).toEqual(['#i x 100']);
  expect(shown(pictureStretched, [600, 400, 1])).toEqual([]);
  expect(shown(pictureStretched, [310, 200, 1])).toEqual([]);
  expect(shown(pictureStretched, [300, 300, 1], { 'object-fit': 'cover' })).toEqual([]);
  expect(shown(pictureStretched, [300, 300, 1], { transform: 'matrix(0, 1, -1, 0, 0, 0)' })).toEqual([]);
  expect(shown(pictureStretched, [300, 300, 1], { transform: 'matrix(2, 0, 0, 2, 0, 0)' })).toEqual([
    '#i x 100',
  ]);
  expect(shown(pictureStretched, [1, 1, 1])).toEqual([]);
});

test('a picture that came and can not be shown; one that did not come is told elsewhere', () => {
  const url = 'http://127.0.0.1/pier.png';
  const page = { width: 800, brokenPictures: [{ node: 2, url }] };
  const render = renderOf(page, [{ tag: 'img', id: 'i', box: [0, 0, 16, 16] }]);
  const [sighting] = pictureBroken.check(render);
  expect(sighting!.message).toContain('pier.png');
  const failure = { url, kind: 'image', status: 404, reason: '404', blocked: false };
  expect(pictureBroken.check({ ...render, delivery: { ...NO_DELIVERY, failures: [failure] } })).toEqual([]);
});
