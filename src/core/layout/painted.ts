import { perSnapshot, perStyle } from './memo.js';
import { FLAG_RENDERED } from './snapshot.js';

/** Content fainter than this is decoration, or a way to hide. */
const FAINT = 0.1;

export interface Painted {
  /** By element: painted at all (rendered, visible, not transparent). */
  readonly painted: Uint8Array;
  /** By element: the product of its own and its ancestors' opacity. */
  readonly opacity: Float64Array;
}

/** What of a page is painted, whatever clips it or lies over it. */
export const paintedOf = perSnapshot((view): Painted => {
  const painted = new Uint8Array(view.count);
  const opacity = new Float64Array(view.count);
  for (let i = 0; i < view.count; i++) {
    const parent = view.parent(i);
    opacity[i] = (parent < 0 ? 1 : opacity[parent]!) * ownOpacity(view, i);
    const visible = view.has(i, FLAG_RENDERED) && isVisible(view, i);
    painted[i] = visible && opacity[i]! > FAINT ? 1 : 0;
  }
  return { painted, opacity };
});

const ownOpacity = perStyle((view, i) => Number.parseFloat(view.style(i, 'opacity') || '1'));

const isVisible = perStyle((view, i) => view.style(i, 'visibility') === 'visible');
