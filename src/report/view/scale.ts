import type { Manifest } from '../../run/manifest.js';

type ProfileRecord = Manifest['profiles'][number];
/** Of what is shown of a profile, its size and how many of its pixels there are. */
export type Shown = Pick<ProfileRecord, 'width' | 'height' | 'dpr' | 'density' | 'mobile'>;

/**
 * How large profiles are drawn beside one another. `fit`: each as high as the room for it. `true`: as they are in the hand, to
 * each other. `css`: one CSS px is the same everywhere. `device`: one pixel of the device is one of the reader's screen.
 */
export const SCALES = ['fit', 'true', 'css', 'device'] as const;
export type ScaleName = (typeof SCALES)[number];

/** What there is to draw in, px of the reader's window, and how many pixels of its screen each of them has. */
export interface Room {
  readonly width: number;
  readonly height: number;
  readonly ratio: number;
}

const MM_PER_INCH = 25.4;
/** A CSS px is 1/96 inch seen from an arm's length (CSS Values 4, section 6.2): what a screen without a density is taken for. */
const CSS_PX_PER_INCH = 96;
/** A phone is held closer: Android's density-independent px, 160 to the inch. */
const MOBILE_PX_PER_INCH = 160;

/** Millimetres of a device's glass that a CSS px takes. */
export function mmPerPx({ dpr, density, mobile }: Shown): number {
  if (density !== null) return (MM_PER_INCH * dpr) / density;
  return MM_PER_INCH / (mobile ? MOBILE_PX_PER_INCH : CSS_PX_PER_INCH);
}

/**
 * Px of the reader's window for a millimetre of a device, so that the highest of the screens has room; never larger than life
 * on a screen of 96 px an inch.
 */
export function pxPerMm(all: readonly Shown[], room: Room): number {
  const heights = all.map((one) => one.height * mmPerPx(one));
  return Math.min(CSS_PX_PER_INCH / MM_PER_INCH, ...heights.map((height) => room.height / height));
}

/** Px of the reader's window for one CSS px of a profile, before zoom. @param all the profiles beside it */
export function factorOf(scale: ScaleName, one: Shown, all: readonly Shown[], room: Room): number {
  switch (scale) {
    case 'fit':
      return Math.min(room.height / one.height, room.width / one.width);
    case 'true':
      return pxPerMm(all, room) * mmPerPx(one);
    case 'css':
      return Math.min(1, ...all.map(({ height }) => room.height / height));
    case 'device':
      return one.dpr / room.ratio;
  }
}
