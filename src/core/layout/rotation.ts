import { passedDown } from './memo.js';
import { turnOf } from './transforms.js';
import type { SnapshotView } from './view.js';

/** How far an element is turned clockwise, by its own transform and those of what holds it, radians; NaN where it is skewed. */
export const rotationOf = passedDown<number>(
  (view, i) => view.parent(i),
  (view, i, above) => above + turnOf(view, i),
  0,
);

/** Neither turned nor skewed: its box has its proportions. */
export function isUpright(view: SnapshotView, i: number): boolean {
  return Math.abs(rotationOf(view, i)) < 1e-6;
}
