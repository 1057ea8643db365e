import type { MediaEnvironment } from '../css/media-query.js';
import type { Device } from '../profile/profile.js';

/** The size of type that pages start from, CSS px. */
const USUAL_TYPE = 16;

/** What media queries see of a device. */
export function environmentOf(device: Device): MediaEnvironment {
  const { height, screen, dpr, mobile, touchPoints, conditions } = device;
  const [hover, pointer] = touchPoints > 0 ? ['none', 'coarse'] : ['hover', 'fine'];
  return {
    height,
    screen,
    dpr,
    fontSize: USUAL_TYPE * (mobile ? 1 : (conditions.textScale ?? 1)),
    medium: conditions.media ?? 'screen',
    words: {
      hover,
      pointer,
      'any-hover': hover,
      'any-pointer': pointer,
      'prefers-color-scheme': conditions.scheme ?? 'light',
      'prefers-reduced-motion': conditions.reducedMotion === true ? 'reduce' : 'no-preference',
      'prefers-contrast': conditions.contrast ?? 'no-preference',
      'forced-colors': conditions.forcedColors === true ? 'active' : 'none',
    },
  };
}
