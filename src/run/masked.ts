import type { Rect } from '../core/geometry/rect.js';
import type { LayoutSnapshot } from '../core/layout/snapshot.js';
import { SnapshotView } from '../core/layout/view.js';
import type { Shot } from '../engine/shot.js';
import { pictureFile } from '../engine/picture-file.js';
import { loadSharp } from '../engine/load-sharp.js';
import { svgOf, svgRect } from './svg.js';

/** What masked parts are painted with: a grey that is seen to be neither the page's light nor its dark. */
const MASK = '#7d7f86';

/** Which part of the page a picture shows: its top left in CSS px, and its pixels a CSS px; null for as many as its width says. */
export interface PictureView {
  readonly x: number;
  readonly y: number;
  readonly scale: number | null;
  readonly width: number;
}

/** The boxes of the elements that selectors match, which the snapshot was told to name, CSS px. */
export function maskedRects(snapshot: LayoutSnapshot, mask: readonly string[]): Rect[] {
  if (mask.length === 0) return [];
  const view = new SnapshotView(snapshot);
  return snapshot.matches
    .filter(({ selector }) => mask.includes(selector))
    .flatMap(({ nodes }) => nodes.filter((node) => view.isRendered(node)).map((node) => view.box(node)));
}

/** A picture with parts of the page painted over. */
export async function covered(
  { file, format }: Pick<Shot, 'file' | 'format'>,
  masked: readonly Rect[],
  view: PictureView,
): Promise<Buffer> {
  if (masked.length === 0) return file;
  const sharp = await loadSharp();
  const { width, height } = await sharp(file, { limitInputPixels: false }).metadata();
  const scale = view.scale ?? width / view.width;
  const rects = masked.map((rect) => {
    // No pixel at its edges shows any of it. Where a page goes on to the left, its beginning is known to the whole px.
    const loose = view.x < 0 ? 1 : 0;
    const x = Math.floor((rect.x - view.x - loose) * scale);
    const y = Math.floor((rect.y - view.y) * scale);
    const right = Math.ceil((rect.x + rect.width - view.x + loose) * scale);
    const bottom = Math.ceil((rect.y + rect.height - view.y) * scale);
    return svgRect({ x, y, width: right - x, height: bottom - y }, `fill="${MASK}"`);
  });
  const cover = svgOf({ width, height }, rects.join(''));
  const painted = sharp(file, { limitInputPixels: false }).composite([{ input: cover, left: 0, top: 0 }]);
  return pictureFile(painted, format);
}
