import sharp from 'sharp';
import { boxesIn, type PixelBox } from '../../core/compare/pixels/boxes.js';
import { differingPixels } from '../../core/compare/pixels/differing.js';
import { pictureOf, type Picture } from '../../core/compare/pixels/picture.js';
import type { ShiftMap } from '../../core/compare/pixels/shift-map.js';
import type { Rect } from '../../core/geometry/rect.js';

/** Two pictures to be compared in a thread of their own. */
export interface PixelTask {
  /** Paths. */
  readonly a: string;
  readonly b: string;
  readonly shifts: ShiftMap | null;
  /** Parts of the second that are left out, picture px. */
  readonly without: readonly Rect[];
  /** ΔEOK from which on colours differ. */
  readonly least: number;
  /** Where to write the picture of what differs; null for none. */
  readonly heat: string | null;
}

export interface PixelResult {
  readonly score: number;
  readonly boxes: readonly PixelBox[];
  readonly hasHeat: boolean;
}

/** Compares two picture files. @throws Error where one of them is no picture */
export default async function comparePixels(task: PixelTask): Promise<PixelResult> {
  const [a, b] = await Promise.all([decoded(task.a), decoded(task.b)]);
  const { mask, count: found, compared, from, to } = differingPixels(a, b, task.shifts, task.least, areSame);
  for (const rect of task.without) clear(mask, b.width, b.height, rect);
  const count = task.without.length === 0 ? found : countIn(mask);
  const boxes = count > 0 ? boxesIn(mask, b.width, b.height, from, to) : [];
  const hasHeat = task.heat !== null && boxes.length > 0;
  if (hasHeat) await writeHeat(b, mask, task.heat);
  return { score: compared > 0 ? count / compared : 0, boxes, hasHeat };
}

const areSame = (a: Uint8Array, b: Uint8Array) => Buffer.compare(a, b) === 0;

async function decoded(path: string): Promise<Picture> {
  const { data, info } = await sharp(path, { limitInputPixels: false })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return pictureOf(info.width, info.height, data);
}

function countIn(mask: Uint8Array): number {
  let count = 0;
  for (let at = mask.indexOf(1); at >= 0; at = mask.indexOf(1, at + 1)) count++;
  return count;
}

function clear(mask: Uint8Array, width: number, height: number, rect: Rect): void {
  const [left, right] = [Math.max(0, Math.floor(rect.x)), Math.min(width, Math.ceil(rect.x + rect.width))];
  for (let y = Math.max(0, Math.floor(rect.y)); y < Math.min(height, Math.ceil(rect.y + rect.height)); y++)
    if (right > left) mask.fill(0, y * width + left, y * width + right);
}

/** The picture pale and grey, what differs in red. */
async function writeHeat(picture: Picture, mask: Uint8Array, path: string): Promise<void> {
  const { width, height, bytes } = picture;
  const out = Buffer.alloc(3 * width * height);
  for (let at = 0; at < width * height; at++) {
    const grey = 0.3 * bytes[4 * at]! + 0.59 * bytes[4 * at + 1]! + 0.11 * bytes[4 * at + 2]!;
    const pale = Math.round(160 + 0.37 * grey);
    const isOther = mask[at] === 1;
    out[3 * at] = isOther ? 208 : pale;
    out[3 * at + 1] = isOther ? 16 : pale;
    out[3 * at + 2] = isOther ? 63 : pale;
  }
  await sharp(out, { raw: { width, height, channels: 3 }, limitInputPixels: false })
    .png({ compressionLevel: 3 })
    .toFile(path);
}
