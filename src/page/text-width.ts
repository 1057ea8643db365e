import { measuringCanvas } from './measuring-canvas.js';

let canvas: CanvasRenderingContext2D | null | undefined;

/** How wide a text is in a font, as `style.font` tells it, CSS px; null where nothing can be measured. */
export function textWidth(text: string, font: string): number | null {
  canvas ??= measuringCanvas();
  if (!canvas) return null;
  canvas.font = font;
  return canvas.measureText(text).width;
}
