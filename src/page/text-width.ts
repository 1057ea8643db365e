import { measuringCanvas } from './measuring-canvas.js';

let canvas: CanvasRenderingContext2D | null | undefined;

/** How wide a text is in a font, as `style.font` tells it, CSS px; null where nothing can be measured. */
export function textWidth(text: string, font: string): number | null {
  return measured(text, font)?.width ?? null;
}

/** How far a font reaches above its baseline, in whole CSS px, as browsers count; null where nothing can be measured. */
export function ascentOf(font: string): number | null {
  const metrics = measured('x', font);
  return metrics && Math.round(metrics.fontBoundingBoxAscent);
}

function measured(text: string, font: string): TextMetrics | null {
  canvas ??= measuringCanvas();
  if (!canvas) return null;
  canvas.font = font;
  return canvas.measureText(text);
}
