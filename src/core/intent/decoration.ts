import { perStyle } from '../layout/memo.js';
import { alphaOf } from '../css/colours.js';
import type { Scene } from '../layout/scene.js';
import { FLAG_ARIA_HIDDEN, FLAG_TEXT } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** Fainter than this is not meant to be read. */
const FAINT = 0.35;

/**
 * Ornament: hidden from assistive technology, too faint to be read, or a copy of an element's words made for an effect.
 * Nobody misses a part of it.
 */
export function isDecoration(scene: Scene, i: NodeIndex): boolean {
  const { view } = scene;
  if (view.has(i, FLAG_ARIA_HIDDEN) || scene.opacity[i]! < FAINT || isCopy(view, i)) return true;
  return view.has(i, FLAG_TEXT) && isFaint(view, i);
}

const isFaint = perStyle((view, i) => alphaOf(view.style(i, 'color')) < FAINT);

/** A pseudo-element that says what its element says: the shadow of a word, a colour that wipes over it. */
function isCopy(view: SnapshotView, i: NodeIndex): boolean {
  if (view.isElement(i)) return false;
  const words = wordsOf(view, i);
  return words !== '' && words === wordsOf(view, view.parent(i));
}

function wordsOf(view: SnapshotView, i: NodeIndex): string {
  return view
    .linesOf(i)
    .map((line) => view.lineText(line).trim())
    .join(' ');
}
