import { alphaOf } from '../css/colours.js';
import { passedDown, perStyle } from './memo.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** Whether a ground is painted through letters alone (CSS Backgrounds 4, section 3.4): no box is drawn by it. */
export const fillsLetters = perStyle((view, i) => /\btext\b/.test(view.style(i, 'background-clip')));

/** The nearest element whose ground fills the letters of an element, itself included; −1 where its words have a colour of their own. */
export const letterGroundOf = passedDown<NodeIndex>(
  (view, i) => view.parent(i),
  (view, i, above) => (fillsLetters(view, i) ? i : above),
  -1,
);

/** The one colour of an element's words; null where a ground fills them. */
export function colourOfWords(view: SnapshotView, i: NodeIndex): string | null {
  return letterGroundOf(view, i) >= 0 ? null : view.style(i, 'color');
}

const alphaOfWords = perStyle((view, i) => {
  const colour = view.style(i, 'color');
  return colour === '' ? 1 : alphaOf(colour);
});

/** Whether an element's words are fainter than that. @param alpha 0 is clear, 1 solid */
export function areFainter(view: SnapshotView, i: NodeIndex, alpha: number): boolean {
  return alphaOfWords(view, i) < alpha && letterGroundOf(view, i) < 0;
}
