import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** What stands before an item of a list, outside of its box: a number or a bullet. */
export function isListMarker(view: SnapshotView, i: NodeIndex): boolean {
  return view.tag(i) === '::marker';
}

/** A bullet, which says nothing: without it a list looks wrong, and no word is lost. */
export function isBullet(view: SnapshotView, i: NodeIndex): boolean {
  return isListMarker(view, i) && view.linesOf(i).every((line) => !LETTER.test(view.lineText(line)));
}

const LETTER = /[\p{L}\p{N}]/u;
