import { LINE_READ, LINE_UNBREAKABLE } from '../core/layout/snapshot.js';

/** One line of a text node, in the coordinates of the node's own viewport. */
export interface TextLine {
  readonly rect: DOMRect;
  readonly text: string;
  readonly flags: number;
}

/** For text whose lines are not asked where they end. */
export const NO_SIDES = { left: -Infinity, right: Infinity };

const MAX_SAMPLE = 80;
/** A `::first-letter` takes the marks round its letter along (CSS Pseudo-Elements 4, section 2.2): with so many characters it is whole. */
const MOST_OF_LETTER = 4;
const PROTRUDES_PX = 0.5;

/**
 * The lines of a text node, one rectangle a line: the glyphs' own height, not the line's leading. The exact text of a
 * line is read only where the line reaches the edge `limit` (its container's content edge), since it costs a search.
 */
export function textLines(
  node: Text,
  range: Range,
  limit: { left: number; right: number },
  noWrap: boolean,
): TextLine[] {
  const whole = node.data;
  // The space before the next word of the line, and the one after the last, have no ink.
  range.setStart(node, whole.length - whole.trimStart().length);
  range.setEnd(node, whole.trimEnd().length);
  const rects = range.getClientRects();
  const lines: TextLine[] = [];
  const sample = whole.trim().slice(0, MAX_SAMPLE);
  const letter = rects.length > 1 ? letterOfItsOwn(node, range, rects[0]!, rects[1]!) : null;
  for (const rect of rects) {
    if (rect.width <= 0 || rect.height <= 0) continue;
    let text = sample;
    let flags = noWrap ? LINE_UNBREAKABLE : 0;
    if (letter !== null && rect === rects[0]) {
      lines.push({ rect, text: letter, flags: flags | LINE_READ });
      continue;
    }
    if (!noWrap && (rect.right > limit.right - PROTRUDES_PX || rect.left < limit.left - PROTRUDES_PX)) {
      const exact = rects.length === 1 ? whole.trim() : textOfLine(node, range, rect);
      if (!/[\s\u00ad\u200b-]/.test(exact.trim())) flags |= LINE_UNBREAKABLE;
      text = exact.trim().slice(0, MAX_SAMPLE);
      if (text.length < MAX_SAMPLE) flags |= LINE_READ;
    }
    lines.push({ rect, text, flags });
  }
  return lines;
}

/** The `::first-letter` of a text where it is drawn in another size than the rest, which makes it a box of its own; else null. */
function letterOfItsOwn(node: Text, range: Range, first: DOMRect, second: DOMRect): string | null {
  if (Math.abs(first.height - second.height) < PROTRUDES_PX) return null;
  const start = node.data.length - node.data.trimStart().length;
  range.setStart(node, start);
  for (let end = start + 1; end <= Math.min(start + MOST_OF_LETTER, node.length); end++) {
    range.setEnd(node, end);
    if (range.getBoundingClientRect().width > first.width - PROTRUDES_PX) return node.data.slice(start, end);
  }
  return null;
}

/** The characters of a text node that stand on the line of `rect`: two binary searches over character positions. */
function textOfLine(node: Text, range: Range, rect: DOMRect): string {
  const middle = rect.top + rect.height / 2;
  const firstWhere = (test: (charRect: DOMRect) => boolean) => {
    let low = 0;
    let high = node.length;
    while (low < high) {
      const mid = (low + high) >> 1;
      range.setStart(node, mid);
      range.setEnd(node, mid + 1);
      if (test(range.getBoundingClientRect())) high = mid;
      else low = mid + 1;
    }
    return low;
  };
  const start = firstWhere((charRect) => charRect.bottom > middle);
  const end = firstWhere((charRect) => charRect.top > middle);
  return node.data.slice(start, end);
}
