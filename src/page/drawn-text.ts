import { NO_SIDES, textLines, type TextLine } from './text-lines.js';
import { parentElementOf } from './own-accessors.js';

/** Past this, CSS px a px, an axis is turned or skewed: boxes say little of such letters. */
const LEAST_SKEW = 0.02;
/** What is in these is drawn where something refers to it, if anywhere (SVG 2, section 5.3). */
const UNPAINTED = 'defs, symbol, clipPath, mask, marker, pattern';

/**
 * The words of a `text` element of a drawing, as they stand on the page; none where they are turned, follow a path, are cut by a
 * shape or a mask of the drawing, or are not painted with anything.
 */
export function drawnLines(element: SVGTextElement, style: CSSStyleDeclaration, range: Range): TextLine[] {
  if (!element.checkVisibility({ opacityProperty: true, visibilityProperty: true })) return [];
  if (style.fill === 'none' || Number.parseFloat(style.fillOpacity) < 0.1) return [];
  const matrix = element.getScreenCTM();
  if (!matrix || Math.abs(matrix.b) > LEAST_SKEW || Math.abs(matrix.c) > LEAST_SKEW) return [];
  if (element.closest(UNPAINTED) || element.querySelector('textPath, [rotate]') || isCutByShape(element))
    return [];
  const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT);
  const lines: TextLine[] = [];
  for (let node = walker.nextNode(); node; node = walker.nextNode())
    if (/\S/.test((node as Text).data)) lines.push(...textLines(node as Text, range, NO_SIDES, true));
  return lines;
}

/** By the element itself or what of the drawing holds it. */
function isCutByShape(element: Element): boolean {
  for (let at: Element | null = element; at && at.localName !== 'svg'; at = parentElementOf(at)) {
    const { clipPath, mask } = getComputedStyle(at);
    if (clipPath !== 'none' || !/^none\b/.test(mask)) return true;
  }
  return false;
}
