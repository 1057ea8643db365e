import type { Size } from '../core/profile/profile.js';
import type { PictureFormat } from './shot.js';
import { pictureFile, WEBP_SIDE } from './picture-file.js';
import { loadSharp } from './load-sharp.js';

/** The side of a picture in one texture, which is as long as the browser draws at once, px. */
const TEXTURE_SIDE = 16_384;
/** What is drawn of an endless page, px: a quarter of a gigabyte of colours. */
const MOST_PIXELS = 2 ** 26;

export interface PicturePlan {
  /** From the top down, CSS px from the page's top left. */
  readonly parts: readonly {
    readonly x: 0;
    readonly y: number;
    readonly width: number;
    readonly height: number;
  }[];
  readonly format: PictureFormat;
  /** Of the parts: where they are joined, nothing may be lost before. */
  readonly partFormat: PictureFormat;
  readonly cut: boolean;
}

/**
 * The parts that a long page is pictured in, each as large as the browser draws at once.
 * @param page CSS px
 * @param perPx picture pixels a CSS px
 */
export function picturePlan(page: Size, perPx: number, wanted: PictureFormat): PicturePlan {
  const width = Math.min(page.width, TEXTURE_SIDE / perPx);
  const height = Math.min(page.height, Math.max(1, Math.floor(MOST_PIXELS / (width * perPx * perPx))));
  // Whole CSS px, so that parts meet at whole pixels of the picture where the ratio is a whole number.
  const step = Math.floor(TEXTURE_SIDE / perPx);
  const parts = [];
  for (let y = 0; y < height; y += step)
    parts.push({ x: 0 as const, y, width, height: Math.min(step, height - y) });
  const format = wanted === 'webp' && Math.max(width, height) * perPx > WEBP_SIDE ? 'png' : wanted;
  return {
    parts,
    format,
    partFormat: parts.length > 1 ? 'png' : format,
    cut: width < page.width || height < page.height,
  };
}

/** Pictures of the same width, one below the other. */
export async function joined(parts: readonly Buffer[], format: PictureFormat): Promise<Buffer> {
  const sharp = await loadSharp();
  const sizes = await Promise.all(parts.map((part) => sharp(part).metadata()));
  const [{ width }] = sizes as [(typeof sizes)[number]];
  const height = sizes.reduce((sum, size) => sum + size.height, 0);
  // All get as much room as the highest; the last is lower.
  const grid = sharp([...parts], { join: { across: 1 }, limitInputPixels: false });
  return pictureFile(grid.extract({ left: 0, top: 0, width, height }), format);
}
