import type { Loss } from './loss.js';
import type { Scene } from '../layout/scene.js';
import { emOf } from '../layout/text-ink.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** Less room than this shows no word to read, em. */
const LEAST_EM = 4;

export type Shortening = 'ellipsis' | 'line-clamp';

/** Whether text ends in an ellipsis or after a number of lines because its authors asked for it. */
export function shorteningOf(scene: Scene, { cutter, ink, axis }: Loss): Shortening | null {
  const { view } = scene;
  for (let at: NodeIndex = ink.node; at >= cutter && at >= 0; at = view.parent(at)) {
    const clamp = view.style(at, '-webkit-line-clamp');
    if (axis === 'y' && clamp !== '' && clamp !== 'none') return 'line-clamp';
    if (axis === 'x' && view.style(at, 'text-overflow') !== 'clip' && view.style(at, 'text-overflow') !== '')
      return 'ellipsis';
    if (view.childrenOf(at).some((child) => isEllipsisMark(view, child))) return 'ellipsis';
  }
  return null;
}

/** A box that says that there is more: an ellipsis of the page's own, set over the end of what is cut. */
export function isEllipsisMark(view: SnapshotView, i: NodeIndex): boolean {
  return (
    view.style(i, 'position') === 'absolute' &&
    view.linesOf(i).some((line) => /^(…|\.\.\.)/.test(view.lineText(line)))
  );
}

/** Whether a shortened text still shows enough to be told from another. */
export function leavesEnough(scene: Scene, { cutter, ink, axis, whole }: Loss): boolean {
  if (ink.kind !== 'text') return !whole;
  if (axis === 'y') return true;
  const room = scene.view.contentBox(cutter);
  return room.width >= LEAST_EM * emOf(scene.view, ink.line);
}
