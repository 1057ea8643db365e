import { perStyle } from './memo.js';
import type { SnapshotView } from './view.js';

/**
 * Whether a scroll container begins at its right, or at its foot, so that its positions run from 0 down and what lies beyond the
 * other end can be reached: by direction and writing mode (CSSOM View, section 2, "overflow directions"), and turned round along the axes
 * that a flex container reverses (CSS Flexbox 1, sections 5.1 and 5.2).
 */
export const beginsAtFarEnd = perStyle((view, i): Readonly<Record<'x' | 'y', boolean>> => {
  const mode = view.style(i, 'writing-mode');
  const isVertical = /^(vertical|sideways)/.test(mode);
  const [inline, block] = isVertical ? (['y', 'x'] as const) : (['x', 'y'] as const);
  const far = {
    [inline]: (view.style(i, 'direction') === 'rtl') !== (mode === 'sideways-lr'),
    [block]: /^(vertical|sideways)-rl$/.test(mode),
  } as Record<'x' | 'y', boolean>;
  if (!isFlex(view, i)) return far;
  const direction = view.style(i, 'flex-direction');
  const [main, cross] = direction.startsWith('column') ? [block, inline] : [inline, block];
  if (direction.endsWith('reverse')) far[main] = !far[main];
  if (view.style(i, 'flex-wrap') === 'wrap-reverse') far[cross] = !far[cross];
  return far;
});

function isFlex(view: SnapshotView, i: number): boolean {
  return /flex/.test(view.style(i, 'display'));
}
