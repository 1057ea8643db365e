import type { Rect } from '../geometry/rect.js';
import type { Clip } from '../geometry/clip.js';

/** Distances from the edges of a box, CSS px. */
export interface Insets {
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
  readonly left: number;
}

/**
 * The insets of a computed `clip-path`, of `inset()` exactly and of circles and ellipses as the box around them (CSS
 * Shapes 1, section 3). Null for `none` and for shapes whose outline says little about what is lost.
 */
export function clipPathInset(value: string, box: Rect): Insets | null {
  const inset = /^inset\(([^)]*)\)/.exec(value);
  if (inset) {
    const parts = inset[1]!.split(' round ')[0]!.trim().split(/\s+/);
    const [top = '0px', right = top, bottom = top, left = right] = parts;
    return {
      top: length(top, box.height),
      right: length(right, box.width),
      bottom: length(bottom, box.height),
      left: length(left, box.width),
    };
  }
  // A shape without area is a way to hide.
  if (/^(circle|ellipse)\(0(px|%)?( 0(px|%)?)?( at .*)?\)$/.test(value)) {
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

function length(text: string, whole: number): number {
  const value = Number.parseFloat(text) || 0;
  return text.endsWith('%') ? (value / 100) * whole : value;
}
