import { screenParts } from '../../../src/core/profile/screen-parts.js';

test('the bars of a phone are over and under its viewport, and fill its screen with it', () => {
  const { viewport, bars, screen } = screenParts({
    width: 390,
    height: 664,
    screen: { width: 390, height: 844 },
    platform: 'ios',
  });
  expect(viewport).toEqual({ x: 0, y: 90, width: 390, height: 664 });
  const area = (rect: { width: number; height: number }) => rect.width * rect.height;
  expect(bars).toHaveLength(2);
  expect(bars.reduce((sum, bar) => sum + area(bar), area(viewport))).toBe(area(screen));
});

test('what is narrower than its screen stands in the middle; what fills it has no bars', () => {
  const split = screenParts({
    width: 500,
    height: 700,
    screen: { width: 800, height: 800 },
    platform: 'linux',
  });
  expect(split.viewport).toEqual({ x: 150, y: 100, width: 500, height: 700 });
  expect(split.bars).toHaveLength(3);
  expect(
    screenParts({ width: 960, height: 540, screen: { width: 960, height: 540 }, platform: 'tv' }).bars,
  ).toEqual([]);
});

test('a viewport that is larger than what is said of the screen', () => {
  const { screen, viewport } = screenParts({
    width: 900,
    height: 700,
    screen: { width: 800, height: 600 },
    platform: 'mac',
  });
  expect(screen).toEqual({ width: 900, height: 700 });
  expect(viewport).toEqual({ x: 0, y: 0, width: 900, height: 700 });
});
