import { IsopticError } from '../errors.js';
import { MAX_DEVICE_PIXELS } from './device-classes.js';
import type { Profile } from './profile.js';

const SHAPE = /^(\d+)x(\d+)(?:@(\d+(?:\.\d+)?))?(\+mobile)?$/;
const MIN_SIDE = 50;
const MAX_SIDE = 16384;
const MAX_DPR = 5;

/**
 * Reads an ad-hoc profile, `WxH[@DPR][+mobile]` with W and H in CSS px: a window without touch and without mobile
 * viewport rules unless `+mobile` follows. Its name is what was written.
 * @throws IsopticError `bad-size` with what is wrong
 */
export function adHocProfile(text: string): Profile {
  const match = SHAPE.exec(text);
  if (!match) {
    throw new IsopticError(
      'bad-size',
      `--at ${text}: not a size.`,
      'Write WIDTHxHEIGHT, with @PIXELRATIO and +mobile if wanted, for instance 390x844 or 390x844@3+mobile.',
    );
  }
  const width = Number(match[1]);
  const height = Number(match[2]);
  const dpr = match[3] === undefined ? 1 : Number(match[3]);
  const mobile = match[4] !== undefined;
  for (const [side, value] of [
    ['width', width],
    ['height', height],
  ] as const) {
    if (value < MIN_SIDE || value > MAX_SIDE) {
      throw new IsopticError(
        'bad-size',
        `--at ${text}: the ${side} ${value} is out of range.`,
        `Use ${MIN_SIDE} to ${MAX_SIDE} CSS px.`,
      );
    }
  }
  if (dpr < 0.5 || dpr > MAX_DPR) {
    throw new IsopticError(
      'bad-size',
      `--at ${text}: the pixel ratio ${dpr} is out of range.`,
      `Use 0.5 to ${MAX_DPR}.`,
    );
  }
  if (width * height * dpr * dpr > MAX_DEVICE_PIXELS) {
    throw new IsopticError(
      'bad-size',
      `--at ${text}: that is ${Math.round((width * height * dpr * dpr) / 1e6)} megapixels for one screen.`,
      `Stay below ${Math.round(MAX_DEVICE_PIXELS / 1e6)} megapixels: a smaller size or pixel ratio.`,
    );
  }
  const orientation = width > height ? 'landscape' : 'portrait';
  return {
    name: text,
    class: mobile ? 'phone' : 'window',
    platform: mobile ? 'android' : 'linux',
    viewport: { [orientation]: { width, height } },
    screen: { width, height },
    dpr,
    orientation,
    touchPoints: mobile ? 5 : 0,
    mobile,
    agent: mobile ? 'android-phone' : 'linux',
  };
}
