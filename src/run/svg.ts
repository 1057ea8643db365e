import type { Rect } from '../core/geometry/rect.js';

/** A drawing to be laid over or under a picture, px. @param inside its elements */
export function svgOf(size: { readonly width: number; readonly height: number }, inside: string): Buffer {
  return Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${size.width}" height="${size.height}">${inside}</svg>`,
  );
}

/** @param style its attributes */
export function svgRect({ x, y, width, height }: Rect, style: string): string {
  return `<rect x="${x}" y="${y}" width="${width}" height="${height}" ${style}/>`;
}

/** Text as it can stand in a drawing, or in Pango's markup; control characters can't. */
export function inMarkup(text: string): string {
  return text
    .replace(/\p{Cc}/gu, ' ')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;');
}
