import { messageOf } from '../../core/errors.js';
import { scrubWidths } from '../../core/sweep/scrub-widths.js';
import type { ShotOptions } from '../../engine/page-session.js';
import type { RunFolder } from '../run-folder.js';
import type { Copies } from './copies.js';
import type { SweepRange } from './plan.js';
import type { SweepRecord } from './search-page.js';

/** Picture px for a CSS px: enough to see what stands where, and a page of them is no larger than one full picture. */
export const WIDTH_SHOT_SCALE = 0.4;
const WIDTH_SHOT: ShotOptions = { foldScale: WIDTH_SHOT_SCALE, format: 'webp' };

/** Writes small pictures of a page at its changes and at steps between, and gives the record that names them. What can't be pictured is said. */
export async function withWidthShots(
  record: SweepRecord,
  copies: Copies,
  range: SweepRange,
  folder: RunFolder,
): Promise<SweepRecord> {
  const { page, from, to, edges, anew } = record;
  const { height } = range.device;
  const widths = scrubWidths(
    from,
    to,
    edges.map(({ width }) => width),
  );
  try {
    const shots = await Promise.all(
      widths.map(async (width) => {
        const small = await (anew
          ? copies.pictureAnew(width, WIDTH_SHOT)
          : copies.picture({ width, height }, WIDTH_SHOT));
        return { width, file: await folder.write(`shots/${page}/widths/${width}.webp`, small) };
      }),
    );
    return { ...record, shots };
  } catch (error) {
    return {
      ...record,
      notes: [...record.notes, `it could not be pictured on the way: ${messageOf(error)}`],
    };
  }
}
