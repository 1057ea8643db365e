/** No wider than this, px, and at most half as wide as the page. */
const MOST_WIDTH = 480;
const MOST_SCALE = 0.5;

/** Picture px of a preview for one CSS px of the page. @param width of the whole page, CSS px */
export function previewScale(width: number): number {
  return Math.min(MOST_SCALE, MOST_WIDTH / width);
}
