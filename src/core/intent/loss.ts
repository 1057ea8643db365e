import type { Rect } from '../geometry/rect.js';
import type { Ink } from '../layout/scene.js';
import type { NodeIndex } from '../layout/view.js';

/** Content that an element cuts off for good. */
export interface Loss {
  readonly ink: Ink;
  /** The element that cuts. */
  readonly cutter: NodeIndex;
  readonly axis: 'x' | 'y';
  /** How much is gone along the axis, CSS px. */
  readonly px: number;
  /** Nothing of the ink is left. */
  readonly whole: boolean;
  readonly rect: Rect;
  /** Whether letters are cut at all, pixels have to tell. */
  readonly doubt?: boolean;
  /** A round corner or a shape cuts, and no edge of a box. */
  readonly byOutline?: boolean;
  /** What is in doubt is cut at an edge of its cutter's box, and by no other shape. */
  readonly byEdge?: boolean;
  /** A field shows a part of its placeholder. */
  readonly inField?: boolean;
  /**
   * A shape takes away most of a picture, or more than the corners of a control; `px` is the share that is gone, of its width. In doubt, a
   * shape that only pixels tell may take away any part of a line.
   */
  readonly byShape?: boolean;
  /** Letters lose a part of their feet, and can be read. */
  readonly slight?: boolean;
}

/** Of a line's height: what is cut by less loses its feet to rounding. */
const CUT_SHARE = 0.25;

/** What was shortened on purpose ends between two lines; where a part of one looks out below, there is room for that by mistake. */
export function isCutThrough({ whole, px, rect }: Loss): boolean {
  return !whole && px >= CUT_SHARE * rect.height;
}
