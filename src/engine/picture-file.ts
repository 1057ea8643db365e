import type { Sharp } from 'sharp';
import type { PictureFormat } from './job.js';

/** What a WebP file can be at most (RFC 9649, section 2.6), px. */
export const WEBP_SIDE = 16_383;
/** Text keeps its edges. */
export const WEBP_QUALITY = 90;

/** A picture of a page as a file: PNG packed quickly, or lossy WebP. */
export function pictureFile(picture: Sharp, format: PictureFormat): Promise<Buffer> {
  return format === 'png'
    ? picture.png({ compressionLevel: 1 }).toBuffer()
    : picture.webp({ quality: WEBP_QUALITY }).toBuffer();
}
