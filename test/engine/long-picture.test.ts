import sharp from 'sharp';
import { joined, picturePlan } from '../../src/engine/long-picture.js';

test('a page is pictured in parts that meet, each as large as a browser draws at once', () => {
  const plan = picturePlan({ width: 400, height: 40_000 }, 1, 'png');
  expect(plan.parts.map(({ y, height }) => [y, height])).toEqual([
    [0, 16_384],
    [16_384, 16_384],
    [32_768, 7232],
  ]);
  expect(plan).toMatchObject({ format: 'png', cut: false });
  expect(picturePlan({ width: 400, height: 16_384 }, 1, 'png').parts).toHaveLength(1);
  const device = picturePlan({ width: 390, height: 6000 }, 3, 'png');
  expect(device.parts.map(({ y }) => y)).toEqual([0, 5461, 10_922].slice(0, 2));
});

test('WebP where it can be so long; what is joined is not lossy before', () => {
  expect(picturePlan({ width: 400, height: 16_000 }, 1, 'webp')).toMatchObject({
    format: 'webp',
    partFormat: 'webp',
  });
  expect(picturePlan({ width: 400, height: 17_000 }, 1, 'webp')).toMatchObject({
    format: 'png',
    partFormat: 'png',
  });
});

test('an endless page is cut', () => {
  const { parts, cut } = picturePlan({ width: 1000, height: 10_000_000 }, 1, 'png');
  expect(cut).toBe(true);
  expect(parts.reduce((sum, { height }) => sum + height, 0)).toBe(Math.floor(2 ** 26 / 1000));
  expect(picturePlan({ width: 30_000, height: 100 }, 1, 'png')).toMatchObject({ cut: true });
});

test('parts of different heights are joined without a gap', async () => {
  const part = (height: number, background: string) =>
    sharp({ create: { width: 10, height, channels: 3, background } })
      .png()
      .toBuffer();
  const whole = await joined([await part(30, '#ff0000'), await part(12, '#0000ff')], 'png');
  const { data, info } = await sharp(whole).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  expect([info.width, info.height]).toEqual([10, 42]);
  const rows = Array.from({ length: 42 }, (_, y) =>
    data[y * 30] === 255 ? 'r' : data[y * 30 + 2] === 255 ? 'b' : '?',
  );
  expect(rows.join('')).toBe('r'.repeat(30) + 'b'.repeat(12));
});
