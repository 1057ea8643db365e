import { messageOf } from '../../core/errors.js';
import { scrubWidths } from '../../core/sweep/scrub-widths.js';
import type { ShotOptions } from '../../engine/page-session.js';
import type { RunFolder } from '../run-folder.js';
import type { Copies } from './copies.js';
import type { SweepRange } from './plan.js';
import type { Pictured } from './search-page.js';

/** Picture px for a CSS px: enough to see what stands where, and a page of them is no larger than one full picture. */
export const WIDTH_SHOT_SCALE = 0.4;
const WIDTH_SHOT: ShotOptions = { foldScale: WIDTH_SHOT_SCALE, format: 'jpeg' };

/** Writes small pictures of a page at its changes and at steps between. */
export async function pictureWidths(
  page: string,
  edges: readonly number[],
  isAnew: boolean,
  copies: Copies,
  { from, to, device: { height } }: SweepRange,
  folder: RunFolder,
): Promise<Pictured> {
  try {
    const shots = await Promise.all(
      scrubWidths(from, to, edges).map(async (width) => {
        const small = await (isAnew
          ? copies.pictureAnew(width, WIDTH_SHOT)
          : copies.picture({ width, height }, WIDTH_SHOT));
        return { width, file: await folder.write(`shots/${page}/widths/${width}.jpg`, small) };
      }),
    );
    return { shots };
  } catch (error) {
    return { failure: messageOf(error) };
  }
}
