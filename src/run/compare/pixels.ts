import { availableParallelism } from 'node:os';
import Tinypool from 'tinypool';
import type { PixelBox } from '../../core/compare/pixels/boxes.js';
import { shiftMapOf, type Shown } from '../../core/compare/pixels/shift-map.js';
import type { Pairing } from '../../core/compare/pairing.js';
import { selectorIn } from '../../core/compare/structure/told.js';
import type { Difference } from '../../core/compare/structure/difference.js';
import { area, grown, intersect, type Rect } from '../../core/geometry/rect.js';
import { FLAG_PICTURE } from '../../core/layout/snapshot.js';
import { packageFile } from '../../package-file.js';
import type { PixelResult, PixelTask } from './pixel-worker.js';
import type { PairRecord } from './record.js';

type Pixels = NonNullable<PairRecord['pixels']>;

/** Threads that compare pictures. To be closed. */
export class PixelThreads {
  private readonly pool = new Tinypool({
    filename: packageFile('dist/workers/pixels.js'),
    minThreads: 0,
    maxThreads: availableParallelism(),
    // A picture of a long page takes 100 MB: threads that wait must not hold theirs.
    idleTimeout: 1000,
  });

  compare(task: PixelTask): Promise<PixelResult> {
    return this.pool.run(task) as Promise<PixelResult>;
  }

  async close(): Promise<void> {
    await this.pool.destroy();
  }
}

/** Two pictures of one page that show the same part of it. */
export interface PicturePair {
  readonly a: string;
  readonly b: string;
  readonly shownA: Shown;
  readonly shownB: Shown;
}

export interface PixelOptions {
  /** Parts of the second page that are left out, CSS px. */
  readonly without: readonly Rect[];
  readonly least: number;
  /** Where the picture of what differs goes: its path on disk, and as it is told. */
  readonly heat: { readonly path: string; readonly told: string };
}

/**
 * What two pictures show otherwise, tied to the elements of the second. @param pairing null where a layout is missing: then each pixel is compared with that at the same place
 * @throws Error where one of them is no picture
 */
export async function comparedPixels(
  threads: PixelThreads,
  pictures: PicturePair,
  pairing: Pairing | null,
  differences: readonly Difference[],
  { without, least, heat }: PixelOptions,
): Promise<Pixels> {
  const { a, b, shownA, shownB } = pictures;
  const { scale, x, y } = shownB;
  const { score, boxes, hasHeat } = await threads.compare({
    a,
    b,
    shifts: pairing && shiftMapOf(pairing, shownA, shownB),
    without: without.map((rect) => ({
      x: (rect.x - x) * scale,
      y: (rect.y - y) * scale,
      width: rect.width * scale,
      height: rect.height * scale,
    })),
    least,
    heat: heat.path,
  });
  const told = [
    ...differences.flatMap(({ places }) =>
      places.flatMap(({ a: was, b: is }) => [...(was ? [was] : []), ...(is ? [is] : [])]),
    ),
    ...(pairing ? rescaled(pairing) : []),
  ];
  return {
    score,
    boxes: boxes.map((box) => {
      const rect = inPage(box, shownB);
      return {
        ...rect,
        selector: pairing && holderOf(pairing, rect),
        explained: told.some((place) => isIn(rect, grown(place, EDGE), TOLD)),
      };
    }),
    heat: hasHeat ? heat.told : null,
  };
}

function inPage(box: PixelBox, { scale, x, y }: Shown): Rect {
  const rounded = (length: number) => Math.round(10 * length) / 10;
  return {
    x: rounded(x + box.x / scale),
    y: rounded(y + box.y / scale),
    width: rounded(box.width / scale),
    height: rounded(box.height / scale),
  };
}

/** Where a picture is drawn larger or smaller, as the ground of a part that grew: what is in it, and what lies over it, looks otherwise by that. */
function rescaled({ a, b, toA }: Pairing): Rect[] {
  return b.rows.flatMap((j) => {
    const i = toA[j]!;
    if (i < 0 || !b.isShown[j]) return [];
    const isPictured = b.view.has(j, FLAG_PICTURE) || !/^(none|)$/.test(b.view.style(j, 'background-image'));
    const [was, is] = [a.view.box(i), b.view.box(j)];
    const isOther = Math.abs(was.width - is.width) > 0.5 || Math.abs(was.height - is.height) > 0.5;
    return isPictured && isOther ? [is] : [];
  });
}

/** Edges are smoothed over the px beside them. */
const EDGE = 3;

/** Of a box, so much has to lie in an element. */
const MOSTLY = 0.8;

/** What a told difference touches so far comes of it: what was behind, what stood there before. */
const TOLD = 0.25;

function isIn(rect: Rect, place: Rect, share: number): boolean {
  const common = intersect(rect, place);
  return common !== null && area(common) >= share * area(rect);
}

/** The smallest element that is seen and holds most of a rectangle. */
function holderOf({ b }: Pairing, rect: Rect): string | null {
  let found = -1;
  let least = Infinity;
  for (const i of b.rows) {
    const box = b.view.box(i);
    const size = area(box);
    if (size > least || !b.isShown[i] || !isIn(rect, box, MOSTLY)) continue;
    found = i;
    least = size;
  }
  return found < 0 ? null : selectorIn(b.view, found);
}
