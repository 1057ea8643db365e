import type { Sharp } from 'sharp';
import type { PictureFormat } from './shot.js';
import { loadSharp } from './load-sharp.js';

/** What a WebP file can be at most (RFC 9649, section 2.6), px. */
export const WEBP_SIDE = 16_383;
/** Of 100, where something is lost: text keeps its edges. */
export const LOSSY_QUALITY = 90;

/** A picture of a page as a file: PNG packed quickly, or with losses. */
export function pictureFile(picture: Sharp, format: PictureFormat): Promise<Buffer> {
  const packed =
    format === 'png'
      ? picture.png({ compressionLevel: 1 })
      : picture.toFormat(format, { quality: LOSSY_QUALITY });
  return packed.toBuffer();
}

/** A picture file made as wide as that, px. */
export async function scaledTo(file: Buffer, width: number, format: PictureFormat): Promise<Buffer> {
  const sharp = await loadSharp();
  return pictureFile(sharp(file).resize(width), format);
}
