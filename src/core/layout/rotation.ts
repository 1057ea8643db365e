import { passedDown, perStyle } from './memo.js';
import type { SnapshotView } from './view.js';

/** How far an element is turned clockwise, by its own transform and those of what holds it, radians; NaN where it is skewed. */
export const rotationOf = passedDown<number>(
  (view, i) => view.parent(i),
  (view, i, above) => above + ownRotation(view, i),
  0,
);

/** Neither turned nor skewed: its box has its proportions. */
export function isUpright(view: SnapshotView, i: number): boolean {
  return Math.abs(rotationOf(view, i)) < 1e-6;
}

const ownRotation = perStyle((view, i): number => {
  const rotate = /^(-?[\d.]+)deg$/.exec(view.style(i, 'rotate'));
  const turn = rotate ? (Number(rotate[1]) * Math.PI) / 180 : 0;
  const matrix = /^matrix\(([^)]*)\)$/.exec(view.style(i, 'transform'));
  if (!matrix) return turn;
  const [a = 1, b = 0, c = 0, d = 1] = matrix[1]!.split(',').map(Number);
  // Of a rotation the two columns stand at right angles.
  if (Math.abs(a * c + b * d) > 1e-3 * Math.hypot(a, b) * Math.hypot(c, d)) return NaN;
  return turn + Math.atan2(b, a);
});
