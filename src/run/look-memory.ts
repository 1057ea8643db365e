import type { Rect } from '../core/geometry/rect.js';
import type { Look } from '../core/layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../core/layout/view.js';
import { middleOf, type Doubt } from '../core/sightings/doubt.js';

/**
 * What pixels showed of the spots of one open page, for its other sizes: two elements that stand to one another as they did before
 * hide no more and no less of each other.
 */
export class LookMemory {
  private readonly seen = new Map<string, Look>();

  /** What was seen of a spot, at its place now; undefined where it looked otherwise, or nobody looked. */
  recall(view: SnapshotView, doubt: Doubt): Look | undefined {
    const known = this.seen.get(keyOf(view, doubt));
    return known && (doubt.passing ? known : { ...known, at: middleOf(doubt.area) });
  }

  keep(view: SnapshotView, doubt: Doubt, look: Look): void {
    this.seen.set(keyOf(view, doubt), look);
  }
}

/** What passes under a bar that stays hides or shows as much wherever it does; at rest, how the two stand counts. */
function keyOf(
  view: SnapshotView,
  { cover, under, area, cuts, byWords, unread, sign, passing }: Doubt,
): string {
  if (passing) return `bar ${view.uid(passing.bar)}`;
  const from = (i: NodeIndex) => placeFrom(area, view.box(i));
  const how = [cuts ?? '', byWords ? 'words' : '', unread ? 'unread' : '', sign ?? ''];
  const places = [from(cover), from(under), area.width, area.height].flat().map((px) => Math.round(10 * px));
  return [view.uid(cover), view.uid(under), ...how, ...places].join(' ');
}

function placeFrom(area: Rect, { x, y, width, height }: Rect): number[] {
  return [x - area.x, y - area.y, width, height];
}
