import { contrastOf } from '../css/colours.js';
import type { Rect } from '../geometry/rect.js';
import { colourUnder } from './grounds.js';
import { colourOfWords } from './letters.js';
import type { Ink, Scene } from './scene.js';

/** How far words stand out from what lies under them in the middle of a rectangle; infinitely where that is a picture, or not known. */
export function contrastUnder(scene: Scene, ink: Ink, area: Rect): number {
  const [under, colour] = [colourUnder(scene, ink, area), colourOfWords(scene.view, ink.node)];
  return under === null || colour === null ? Infinity : contrastOf(colour, under);
}
