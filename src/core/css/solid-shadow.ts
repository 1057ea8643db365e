import { alphaOf } from './colours.js';
import { remembered } from './remembered.js';

/** A shadow with sharp edges that nothing is seen through: its offset, and how much larger than its box it is on each side, CSS px. */
export interface SolidShadow {
  readonly x: number;
  readonly y: number;
  readonly spread: number;
}

/** More is a soft edge, CSS px. */
const MOST_BLUR = 2;
/** As browsers compute it (CSS Backgrounds 3, section 6.1): colour, two offsets, blur, spread. */
const SHADOW = /^([a-z]+\([^)]*\)) (-?[\d.]+)px (-?[\d.]+)px ([\d.]+)px (-?[\d.]+)px$/;

/** The solid ones of a computed `box-shadow`; those within the box are none. */
export const solidShadowsIn = remembered((value): readonly SolidShadow[] =>
  value.split(/, (?=[a-z]+\()/).flatMap((each) => {
    const [, colour = '', x, y, blur, spread] = SHADOW.exec(each) ?? [];
    if (Number(blur ?? Infinity) > MOST_BLUR || alphaOf(colour) < 0.9) return [];
    return [{ x: Number(x), y: Number(y), spread: Number(spread) }];
  }),
);
