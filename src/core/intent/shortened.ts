import { meets, outAlong } from '../geometry/rect.js';
import { isCutThrough, type Loss } from './loss.js';
import type { Scene } from '../layout/scene.js';
import { FLAG_CONTROL } from '../layout/snapshot.js';
import { emOf } from '../layout/text-ink.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** Less is a rounding, CSS px. */
const LEAST_OUT = 0.5;
/** Letters reach so far before their own place at the most, CSS px. */
const LEAST_BEFORE = 3;
/** Less room than this shows no word to read, em. */
const LEAST_EM = 3;

/** A price, a date, a number: so many letters at most. */
const LONGEST_FIGURE = 24;

export type Shortening = 'ellipsis' | 'line-clamp';

/** Whether text ends in an ellipsis or after a number of lines because its authors asked for it. */
export function shorteningOf(scene: Scene, loss: Loss): Shortening | null {
  const { view } = scene;
  const { cutter, ink, axis } = loss;
  if (takesThingAtEnd(scene, loss) || cutsThroughFigure(view, loss)) return null;
  for (let at: NodeIndex = ink.node; at >= cutter && at >= 0; at = view.parent(at)) {
    // What something else cuts has room in what would end it so.
    const hasNoRoom = () => outAlong(ink.full, view.contentBox(at), axis) > LEAST_OUT;
    const clamp = view.style(at, '-webkit-line-clamp');
    if (axis === 'y' && clamp !== '' && clamp !== 'none' && hasNoRoom())
      return isCutThrough(loss) ? null : 'line-clamp';
    if (axis === 'x' && endsInDots(view, at) && hasNoRoom())
      return beginsOutside(view, at, loss) ? null : 'ellipsis';
    if (view.childrenOf(at).some((child) => isEllipsisMark(view, child))) return 'ellipsis';
  }
  return null;
}

/** Whether the first letters of a line are gone: dots stand for its end alone. */
function beginsOutside(view: SnapshotView, i: NodeIndex, { ink }: Loss): boolean {
  const [{ x, width }, room] = [ink.full, view.paddingBox(i)];
  const isRtl = view.style(i, 'direction') === 'rtl';
  return (isRtl ? x + width - (room.x + room.width) : room.x - x) > LEAST_BEFORE;
}

function endsInDots(view: SnapshotView, i: NodeIndex): boolean {
  const overflow = view.style(i, 'text-overflow');
  return overflow !== 'clip' && overflow !== '';
}

/** Figures that stand in a word, as in a file's name or a checksum, are none. */
const FIGURES = /(?<!\p{L}\d*)\p{Sc}?\d[\d.,:\u00a0\u2019]*(?!\p{L}|\d)/gu;
/** Of a text's letters, so many are its figures': then it is a price or an hour, and no name that has a number. */
const LEAST_OF_FIGURES = 0.5;

/** A price or an hour that ends within its figures says another one. */
function cutsThroughFigure(view: SnapshotView, { ink, axis, px, rect }: Loss): boolean {
  if (ink.kind !== 'text' || axis !== 'x') return false;
  const words = view.lineText(ink.line).trim();
  const figures = [...words.matchAll(FIGURES)];
  const count = figures.reduce((sum, [figure]) => sum + figure.length, 0);
  if (words.length > LONGEST_FIGURE || count < LEAST_OF_FIGURES * words.replace(/\s/g, '').length)
    return false;
  const kept = words.length * (1 - px / rect.width);
  return figures.some(
    ({ 0: { length }, index }) => length > 1 && kept > index && kept < index + length - 0.5,
  );
}

/**
 * Whether what is taken away is no tail of a sentence but a thing of its own behind it, whole: a price, a date, a link, in an
 * element that ends what is shortened.
 */
function takesThingAtEnd(scene: Scene, { cutter, ink, whole }: Loss): boolean {
  const { view } = scene;
  if (!whole || ink.kind !== 'text') return false;
  const { node, count } = view.snapshot.lines;
  let last = ink.line;
  while (last + 1 < count && scene.contains(cutter, node[last + 1]!)) last++;
  for (let at = ink.node; at > cutter; at = view.parent(at)) {
    if (!view.isElement(at) || !scene.contains(at, node[last]!)) continue;
    // Of a title on several lines the first ones are there.
    if (meets(view.box(at), view.paddingBox(cutter), 2)) return false;
    if (view.has(at, FLAG_CONTROL)) return true;
    const words = view
      .linesOf(at)
      .map((line) => view.lineText(line))
      .join('')
      .trim();
    if (/\d/.test(words) && words.length <= LONGEST_FIGURE) return true;
  }
  return false;
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
