import { passedDown, perNode } from '../layout/memo.js';
import { controlAround } from '../layout/ancestors.js';
import { isBullet } from './bullets.js';
import { areFainter } from '../layout/letters.js';
import type { Scene } from '../layout/scene.js';
import { FLAG_ARIA_HIDDEN, FLAG_CONTROL, FLAG_TEXT } from '../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** Fainter than this is not meant to be read. */
const FAINT = 0.35;

/**
 * Ornament: hidden from assistive technology, too faint to be read, or a copy of an element's words made for an effect.
 * Nobody misses a part of it.
 */
export function isDecoration(scene: Scene, i: NodeIndex): boolean {
  const { view } = scene;
  if (view.has(i, FLAG_ARIA_HIDDEN) && !holdsControls(view, ariaHiddenRoot(view, i)) && !isSeenHalf(scene, i))
    return true;
  if (scene.opacity[i]! < FAINT || isAddedForLooks(view, i)) return true;
  return view.has(i, FLAG_TEXT) && areFainter(view, i, FAINT);
}

/** The same for what looks wrong where it is not in its place: a bullet, which says nothing either, is missed with its item. */
export function isOrnament(scene: Scene, i: NodeIndex): boolean {
  return isDecoration(scene, isBullet(scene.view, i) ? scene.view.parent(i) : i);
}

/** What has links and buttons in it is a drawer or a dialog that is thought to be closed: where it is seen, so are they. */
const holdsControls = perNode((view: SnapshotView, i: NodeIndex): boolean =>
  view.childrenOf(i).some((child) => view.has(child, FLAG_CONTROL) || holdsControls(view, child)),
);

/**
 * Words that are hidden from assistive technology because others say the same to it: those that a control is seen by, or those beside
 * a text that nobody sees. What says it twice to the eye is an effect.
 */
function isSeenHalf(scene: Scene, i: NodeIndex): boolean {
  const { view } = scene;
  if (!view.has(i, FLAG_TEXT) || !LETTERS.test(wordsOf(view, i))) return false;
  const root = ariaHiddenRoot(view, i);
  const around = view.parent(root);
  if (around < 0) return false;
  const others = view
    .childrenOf(around)
    .filter((other) => other !== root && !view.has(other, FLAG_ARIA_HIDDEN));
  if (others.some((other) => isUnseenText(view, other))) return true;
  const control = controlAround(view, around);
  if (control < 0) return false;
  const words = wordsOf(view, i);
  for (let at = control; at <= scene.lastOf(control); at++)
    if (!scene.contains(root, at) && wordsOf(view, at) === words) return false;
  return true;
}

const LETTERS = /[\p{L}\p{N}]{2}/u;

/** The outermost element around one that is hidden from assistive technology. */
const ariaHiddenRoot = passedDown<NodeIndex>(
  (view, i) => view.parent(i),
  (view, i, above) => (above < 0 && view.has(i, FLAG_ARIA_HIDDEN) ? i : above),
  -1,
);

/** In a box of a px or so, for assistive technology. */
function isUnseenText(view: SnapshotView, i: NodeIndex): boolean {
  const { width, height } = view.box(i);
  return view.has(i, FLAG_TEXT) && width <= 2 && height <= 2;
}

/** A pseudo-element that says nothing, or what its element says: a sign, the shadow of a word, a colour that wipes over it. */
function isAddedForLooks(view: SnapshotView, i: NodeIndex): boolean {
  if (view.isElement(i)) return false;
  const words = wordsOf(view, i);
  return (words !== '' && !LETTER.test(words)) || isCopy(view, i);
}

/** Whether a pseudo-element says what its element says: where it lies on that, the words are there once more. */
export function isCopy(view: SnapshotView, i: NodeIndex): boolean {
  if (view.isElement(i)) return false;
  const words = wordsOf(view, i);
  return words !== '' && words === wordsOf(view, view.parent(i));
}

const LETTER = /[\p{L}\p{N}]/u;

function wordsOf(view: SnapshotView, i: NodeIndex): string {
  return view
    .linesOf(i)
    .map((line) => view.lineText(line).trim())
    .join(' ');
}
