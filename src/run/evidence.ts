import { intersect, type Rect } from '../core/geometry/rect.js';

const MARGIN = 24;
const MAX_SIDE = 900;
const STROKE = '#d6224a';

/**
 * A crop of a full shot round a defect, with the defect outlined, as PNG at one picture pixel a CSS px.
 * @param shot path of the full shot
 * @param rect the defect, CSS px from the page's top left
 * @returns null when the defect lies outside the picture
 */
export async function evidenceCrop(shot: string, rect: Rect): Promise<Buffer | null> {
  const { default: sharp } = await import('sharp');
  const { width, height } = await sharp(shot).metadata();
  const picture = { x: 0, y: 0, width, height };
  const defect = intersect(rect, picture);
  if (!defect) return null;
  const area = intersect(around(defect), picture);
  if (!area) return null;
  const crop = {
    left: Math.floor(area.x),
    top: Math.floor(area.y),
    width: Math.min(width - Math.floor(area.x), Math.ceil(area.width)),
    height: Math.min(height - Math.floor(area.y), Math.ceil(area.height)),
  };
  const outline = `<svg xmlns="http://www.w3.org/2000/svg" width="${crop.width}" height="${crop.height}">
    <rect x="${defect.x - crop.left}" y="${defect.y - crop.top}" width="${defect.width}" height="${defect.height}"
      fill="none" stroke="${STROKE}" stroke-width="3"/></svg>`;
  return sharp(shot)
    .extract(crop)
    .composite([{ input: Buffer.from(outline), left: 0, top: 0 }])
    .png()
    .toBuffer();
}

/** The defect with a margin; of a very large one, its top left part. */
function around(rect: Rect): Rect {
  return {
    x: rect.x - MARGIN,
    y: rect.y - MARGIN,
    width: Math.min(rect.width + 2 * MARGIN, MAX_SIDE),
    height: Math.min(rect.height + 2 * MARGIN, MAX_SIDE),
  };
}
