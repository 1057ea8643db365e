import type { LayoutSnapshot } from './snapshot.js';

/**
 * Where a page begins on the left, CSS px of it: below nothing where one that is read from the right to the left is wider than its window, which
 * shows its right end at first (CSS Overflow 3, section 3.3). A picture of the whole page begins there.
 */
export function pageLeft({
  direction,
  viewport,
  document,
}: Pick<LayoutSnapshot, 'direction' | 'viewport' | 'document'>): number {
  return direction === 'rtl' ? Math.min(0, viewport.width - document.width) : 0;
}
