export const ORIENTATIONS = ['portrait', 'landscape'] as const;

export const DEVICE_CLASSES = [
  'phone',
  'foldable',
  'tablet',
  'split',
  'laptop',
  'desktop',
  'tv',
  'window',
] as const;
export const PLATFORMS = ['ios', 'android', 'windows', 'mac', 'linux', 'chromeos', 'tv'] as const;

/** The largest screen that a browser paints for certain, in device px. */
export const MAX_DEVICE_PIXELS = 2 ** 28;
