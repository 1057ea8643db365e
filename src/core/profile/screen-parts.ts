import type { Rect } from '../geometry/rect.js';
import type { Device, Platform, Size } from './profile.js';

/** A device's screen: what of it shows the page, and what its system and browser keep for their own bars. CSS px. */
export interface ScreenParts {
  readonly screen: Size;
  readonly viewport: Rect;
  readonly bars: readonly Rect[];
}

/** Of what a screen is higher than its viewport, the share that lies below it: a toolbar, a taskbar, a row of buttons. */
const BELOW: Partial<Readonly<Record<string, number>>> = {
  ios: 0.5,
  android: 0.3,
  windows: 0.35,
  mac: 0.4,
  linux: 0,
  chromeos: 0.45,
  tv: 0,
} satisfies Record<Platform, number>;

/** Where a viewport lies on its screen, as far as can be told from the two sizes. */
export function screenParts({
  width,
  height,
  screen,
  platform,
}: Pick<Device, 'width' | 'height' | 'screen'> & { readonly platform: string }): ScreenParts {
  const whole = { width: Math.max(width, screen.width), height: Math.max(height, screen.height) };
  const over = whole.height - height;
  const below = Math.round(over * (BELOW[platform] ?? 0));
  const beside = whole.width - width;
  const left = Math.round(beside / 2);
  const viewport = { x: left, y: over - below, width, height };
  const bars = [
    { x: 0, y: 0, width: whole.width, height: viewport.y },
    { x: 0, y: whole.height - below, width: whole.width, height: below },
    { x: 0, y: viewport.y, width: left, height },
    { x: left + width, y: viewport.y, width: beside - left, height },
  ];
  return { screen: whole, viewport, bars: bars.filter((bar) => bar.width > 0 && bar.height > 0) };
}

/** A device's body: how far it reaches round its screen, and how round its corners are. CSS px; of no product's shape. */
const BODIES: Readonly<Record<Device['class'], { readonly around: number; readonly radius: number }>> = {
  phone: { around: 12, radius: 40 },
  foldable: { around: 12, radius: 28 },
  tablet: { around: 20, radius: 28 },
  split: { around: 20, radius: 28 },
  laptop: { around: 16, radius: 14 },
  desktop: { around: 16, radius: 10 },
  tv: { around: 12, radius: 6 },
  window: { around: 4, radius: 6 },
};

/** A device drawn round its screen: its body from 0, 0, and in it the bars and the viewport. */
export interface DeviceDrawing {
  readonly body: Size;
  readonly radius: number;
  readonly bars: readonly Rect[];
  readonly viewport: Rect;
}

/** @param scale px of the drawing for a CSS px */
export function deviceDrawing(
  device: Parameters<typeof screenParts>[0] & Pick<Device, 'class'>,
  scale: number,
): DeviceDrawing {
  const { screen, viewport, bars } = screenParts(device);
  const { around, radius } = BODIES[device.class];
  const drawn = ({ x, y, width, height }: Rect): Rect => ({
    x: (x + around) * scale,
    y: (y + around) * scale,
    width: width * scale,
    height: height * scale,
  });
  return {
    body: { width: (screen.width + 2 * around) * scale, height: (screen.height + 2 * around) * scale },
    radius: radius * scale,
    bars: bars.map(drawn),
    viewport: drawn(viewport),
  };
}
