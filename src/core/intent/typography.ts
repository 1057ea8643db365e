import { area, intersect, sizeAlong, type Rect } from '../geometry/rect.js';
import { blockAround } from '../layout/ancestors.js';
import { passedDown } from '../layout/memo.js';
import type { Ink } from '../layout/scene.js';
import { acrossLines, emOf } from '../layout/text-ink.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';

/** The same words at nearly the same place: an outline, a shadow or a glow made of copies. */
export function isEcho(view: SnapshotView, a: Ink, b: Ink): boolean {
  // Lines of one text have its words in common, and so have lines of two paragraphs that say the same.
  if (a.node === b.node) return false;
  const nth = ({ node, line }: Ink) => view.linesOf(node).indexOf(line);
  if (view.lineText(a.line) !== view.lineText(b.line) || nth(a) !== nth(b)) return false;
  const common = intersect(a.full, b.full);
  return common !== null && area(common) >= 0.6 * Math.min(area(a.full), area(b.full));
}

/** Superscripts, subscripts and ruby. */
export function isSmallRaised(view: SnapshotView, i: NodeIndex): boolean {
  return isSuperOrSub(view, i) || (isAnnotation(view, i) && view.style(i, 'display').startsWith('ruby'));
}

function isSuperOrSub(view: SnapshotView, i: NodeIndex): boolean {
  for (let at = i; at >= 0 && view.style(at, 'display').startsWith('inline'); at = view.parent(at)) {
    if (/^(sup|sub|rt|rp)$/.test(view.tag(at)) || /^(super|sub)$/.test(view.style(at, 'vertical-align')))
      return true;
  }
  return false;
}

/** Of the height of raised letters, what they may have in common with another line. */
const RAISED_INTO = 0.5;

/** Whether a text is small and raised or lowered, and reaches into the line beside its own by no more than the flow makes it. */
export function reachesIntoNextLine(view: SnapshotView, ink: Ink, common: Rect): boolean {
  if (!isSmallRaised(view, ink.node)) return false;
  const across = acrossLines(view, ink.node);
  const isOnIt = sizeAlong(common, across) >= RAISED_INTO * sizeAlong(ink.full, across);
  return !isOnIt || !isSuperOrSub(view, ink.node) || isAnnotation(view, ink.node);
}

function isAnnotation(view: SnapshotView, i: NodeIndex): boolean {
  return /^(rt|rp)$/.test(view.tag(i));
}

/**
 * Words beside what is annotated in their own line: the box of that is as wide as its annotation, which hangs over what stands beside it
 * (CSS Ruby Annotation Layout 1, section 4.4).
 */
export function areBesideRuby(view: SnapshotView, a: Ink, b: Ink): boolean {
  const [rubyA, rubyB] = [rubyAround(view, a.node), rubyAround(view, b.node)];
  if (rubyA === rubyB || [a, b].some(({ node }) => isAnnotation(view, node))) return false;
  const lineOf = ({ node }: Ink, ruby: NodeIndex) => blockAround(view, ruby < 0 ? node : view.parent(ruby));
  const across = acrossLines(view, a.node);
  const isOneLine = Math.abs(a.full[across] - b.full[across]) < SAME_LINE_EM * emOf(view, a.line);
  return isOneLine && lineOf(a, rubyA) === lineOf(b, rubyB);
}

/** Lines of one block that begin so near to one another are one, em. */
const SAME_LINE_EM = 0.5;

/** The innermost `ruby` that holds an element, −1 where there is none. */
const rubyAround = passedDown<NodeIndex>(
  (view, i) => view.parent(i),
  (view, i, above) => (view.tag(i) === 'ruby' ? i : above),
  -1,
);

/** Stars of a rating, arrows, dots: signs and no words. Part of a row of them is shown by design. */
export function isSymbols(view: SnapshotView, ink: Pick<Ink, 'kind' | 'line'>): boolean {
  return ink.kind === 'text' && !/[\p{L}\p{N}]/u.test(view.lineText(ink.line));
}

/** Of signs, whether they stand in a row, as the stars of a rating do: they say something, and are no ornament behind words. */
export function isRowOfSigns(view: SnapshotView, ink: Ink): boolean {
  return /\p{So}\s*\p{So}\s*\p{So}/u.test(view.lineText(ink.line));
}
