import type { Rect } from '../geometry/rect.js';
import type { Clip } from '../geometry/clip.js';
import { lengthOf } from './lengths.js';
import { partedAt, shapeOf } from './shapes.js';

/** Distances from the edges of a box, CSS px. */
export interface Insets {
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
  readonly left: number;
}

/**
 * The insets of a computed `clip-path`, of `inset()` exactly and of circles and ellipses without area as the box around
 * them (CSS Shapes 1, section 3). Null for `none` and for shapes whose outline says little about what is lost.
 */
export function clipPathInset(value: string, box: Rect): Insets | null {
  const shape = shapeOf(value);
  const first = shape?.groups[0] ?? [];
  if (shape?.kind === 'inset') {
    const [[top = '0px', right = top, bottom = top, left = right]] = partedAt('round', first);
    const length = (text: string, whole: number) => lengthOf(text, whole) || 0;
    return {
      top: length(top, box.height),
      right: length(right, box.width),
      bottom: length(bottom, box.height),
      left: length(left, box.width),
    };
  }
  if (shape?.kind === 'circle' || shape?.kind === 'ellipse') {
    const [radii] = partedAt('at', first);
    // A shape without area is a way to hide.
    if (radii.some((radius) => lengthOf(radius, 100) === 0))
      return { top: box.height, right: box.width, bottom: 0, left: 0 };
  }
  return null;
}

/** CSS 2.1, section 11.1.2: `clip: rect(top, right, bottom, left)`, offsets from the border box's top left. */
export function legacyClip(value: string, box: Rect): Clip | null {
  const match = /^rect\(([^)]*)\)$/.exec(value);
  if (!match) return null;
  const [top = 'auto', right = 'auto', bottom = 'auto', left = 'auto'] = match[1]!.split(/[\s,]+/);
  const at = (text: string, start: number, otherwise: number) =>
    text === 'auto' ? otherwise : start + (Number.parseFloat(text) || 0);
  return {
    top: at(top, box.y, box.y),
    right: at(right, box.x, box.x + box.width),
    bottom: at(bottom, box.y, box.y + box.height),
    left: at(left, box.x, box.x),
  };
}
