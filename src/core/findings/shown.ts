import { meets, rounded, type Rect } from '../geometry/rect.js';
import { isFixed } from '../layout/viewport-layer.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import type { Sighting } from '../sightings/sighting.js';
import type { Seen } from './finding.js';

/** More of them are not outlined. */
const MOST_RECTS = 6;

/** Where the parts of a defect are to be outlined: who is at fault, who loses something, and what is lost. */
export function shownParts(
  view: SnapshotView,
  { node, related, rect, affected = [], shows = {} }: Sighting,
): Pick<Seen, 'fault' | 'suffers' | 'lost' | 'scrolled'> {
  const { scroll } = view.snapshot;
  const { scrolled, lost = [] } = shows;
  /** What is fixed to the screen has moved along. */
  const placeOf = (i: NodeIndex): Rect => {
    const box = view.box(i);
    return scrolled !== undefined && isFixed(view, i) ? { ...box, y: box.y + scrolled - scroll.y } : box;
  };
  // Of several alike it speaks of the worst.
  const atFault = [node, ...related].find((i) => meets(placeOf(i), rect, 0)) ?? node;
  const suffering = [...new Set(affected)].filter((other) => other !== atFault).slice(0, MOST_RECTS);
  return {
    fault: rounded(shows.fault ?? placeOf(atFault)),
    ...(suffering.length > 0 && { suffers: suffering.map((other) => rounded(placeOf(other))) }),
    ...(lost.length > 0 && { lost: lost.slice(0, MOST_RECTS).map(rounded) }),
    ...(scrolled !== undefined && { scrolled: Math.round(scrolled) }),
  };
}
