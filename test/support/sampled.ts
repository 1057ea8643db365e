import { digest } from '../../src/core/identity/digest.js';

/** Not set in `npm test`; `1` in `npm run verify`; `every` leaves out nothing, and takes as long as that takes. */
const all = process.env['ISOPTIC_ALL'];
export const isInVerify = all !== undefined;

/** A number that a name always has, as good as random. */
export const numberOf = (name: string) => Number.parseInt(digest(name), 36);

/**
 * Whether a thing of a long list is gone over: one of so many, evenly, by a hash of its name.
 * @param oneOf in `npm test`
 * @param inVerify in `npm run verify`, each unless told
 */
export function isSampled(name: string, oneOf: number, inVerify = 1): boolean {
  const share = all === undefined ? oneOf : all === 'every' ? 1 : inVerify;
  return numberOf(name) % share === 0;
}
