import { UNSEEN } from '../css/colours.js';
import type { Rect } from '../geometry/rect.js';
import { contrastUnder } from '../layout/contrast.js';
import type { Ink, Scene } from '../layout/scene.js';
import { emOf } from '../layout/text-ink.js';

/** Large letters that stand out from their ground by less (WCAG 2.2, contrast ratio) are there to be looked at: no size makes them words that are read. */
const PALE = 1.6;
/** So large, CSS px; or so many times as large as those that lie on them. */
const LARGE_PX = 36;
const LARGER = 1.5;

/** Whether a text is large and pale: a number or a word that is set behind others as an ornament, and of which nobody misses a part. */
export function isWatermark(scene: Scene, ink: Ink): boolean {
  if (ink.kind !== 'text' || emOf(scene.view, ink.line) < LARGE_PX) return false;
  return contrastUnder(scene, ink, ink.shown ?? ink.full) < PALE;
}

/**
 * The same of letters under others, from which they take nothing.
 * @param common where the two meet, CSS px of the page
 */
export function isWatermarkUnder(scene: Scene, lower: Ink, upper: Ink, common: Rect): boolean {
  const isLarger = emOf(scene.view, lower.line) >= LARGER * emOf(scene.view, upper.line);
  return contrastUnder(scene, lower, common) < (isLarger ? PALE : UNSEEN);
}
