import { meets } from '../core/geometry/rect.js';
import type { Box } from './pseudo-box.js';

const SHAPES = new Set(['rect', 'circle', 'ellipse', 'path', 'polygon', 'image']);
/** Through a paint that is fainter, what it is painted on is seen. */
const SOLID = 0.9;

/**
 * What of a drawing is painted over its own words: a drawing is painted in the order in which it is written (SVG 2, section 3.3), so a
 * solid shape lies over the words before it.
 */
export class DrawnShapes {
  /** Boxes of the words met so far, by the drawing that they stand in. */
  private readonly words = new WeakMap<Element, Box[]>();

  addWords(element: SVGElement, boxes: readonly Box[]): void {
    const drawing = element.ownerSVGElement;
    if (!drawing) return;
    const known = this.words.get(drawing);
    if (known) known.push(...boxes);
    else this.words.set(drawing, [...boxes]);
  }

  /** The box of a solid shape that lies over words before it; null for any other. */
  over(element: Element, tag: string): DOMRect | null {
    if (!SHAPES.has(tag) || !(element instanceof SVGElement)) return null;
    const words = element.ownerSVGElement && this.words.get(element.ownerSVGElement);
    if (!words) return null;
    const rect = element.getBoundingClientRect();
    return words.some((box) => meets(box, rect, 0)) && isSolid(element, tag) ? rect : null;
  }
}

function isSolid(element: SVGElement, tag: string): boolean {
  if (!element.checkVisibility({ opacityProperty: true, visibilityProperty: true })) return false;
  const { fill, fillOpacity, opacity } = getComputedStyle(element);
  if (Number.parseFloat(opacity) < SOLID) return false;
  if (tag === 'image') return true;
  const alpha = /^rgba\(.*[,/]\s*([\d.]+)\)$/.exec(fill)?.[1] ?? '1';
  return fill !== 'none' && Number.parseFloat(fillOpacity) * Number.parseFloat(alpha) >= SOLID;
}
