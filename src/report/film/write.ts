import { formatByEnding } from '../by-ending.js';
import { loadSharp } from '../../engine/load-sharp.js';

export const FILM_FORMATS = ['.webp', '.gif'] as const;
export type FilmFormat = (typeof FILM_FORMATS)[number];

/** @throws IsopticError `bad-option` */
export function filmFormat(path: string): FilmFormat {
  return formatByEnding('--out', path, 'film', FILM_FORMATS);
}

/**
 * A film of picture files that are of one size. They are read one after another, so that what is held is no more than a few.
 * @param delays ms, one a picture
 */
export async function filmOf(
  files: readonly string[],
  delays: readonly number[],
  format: FilmFormat,
): Promise<Buffer> {
  const sharp = await loadSharp();
  const film = sharp([...files], { join: { animated: true }, limitInputPixels: false });
  const delay = delays.map(Math.round);
  return format === '.webp'
    ? film.webp({ delay, loop: 0, quality: 80, effort: 2 }).toBuffer()
    : film.gif({ delay, loop: 0, effort: 3 }).toBuffer();
}
