import { area, intersect } from '../geometry/rect.js';
import type { Ink } from '../layout/scene.js';
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

/** Superscripts, subscripts and ruby, where the flow has put them: they reach into the line beside theirs by design. */
export function isSmallRaised(view: SnapshotView, i: NodeIndex): boolean {
  for (let at = i; at >= 0 && view.style(at, 'display').startsWith('inline'); at = view.parent(at)) {
    if (/^(sup|sub|rt|rp)$/.test(view.tag(at)) || /^(super|sub)$/.test(view.style(at, 'vertical-align')))
      return true;
  }
  return /^(rt|rp)$/.test(view.tag(i)) && view.style(i, 'display').startsWith('ruby');
}

/** Stars of a rating, arrows, dots: signs and no words. Part of a row of them is shown by design. */
export function isSymbols(view: SnapshotView, ink: Ink): boolean {
  return ink.kind === 'text' && !/[\p{L}\p{N}]/u.test(view.lineText(ink.line));
}
