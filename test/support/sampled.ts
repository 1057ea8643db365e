import { digest } from '../../src/core/identity/digest.js';

/** Whether everything is gone over, as in `npm run verify`. */
const isWhole = process.env['ISOPTIC_ALL'] !== undefined;

/** A number that a name always has, as good as random. */
export const numberOf = (name: string) => Number.parseInt(digest(name), 36);

/** Whether a thing of a long list is gone over: one of so many, evenly, by a hash of its name, and each in `npm run verify`. */
export const isSampled = (name: string, oneOf: number) => isWhole || numberOf(name) % oneOf === 0;
