import type { Rect } from '../core/geometry/rect.js';
import type { Look } from '../core/layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../core/layout/view.js';
import { middleOf, type Doubt } from '../core/sightings/doubt.js';

/** A page at one of its sizes, as its looks are remembered. */
export interface LookedAt {
  readonly view: SnapshotView;
  /** CSS px along the axis of a search. */
  readonly size: number;
  /** Of each row of the view the element's number, which holds at all sizes, and in all open copies of the page. */
  readonly numbers: Int32Array;
}

/** What was seen of doubtful spots before. */
export interface KnownLooks {
  /** What was seen of a spot, at its place now; undefined where it has to be looked at. */
  recall(doubt: Doubt): Look | undefined;
  keep(doubt: Doubt, look: Look): void;
}

export const NOTHING_KNOWN: KnownLooks = { recall: () => undefined, keep: () => undefined };

/** Sizes that are no further apart tell what is to be seen between them, CSS px: a search looks no closer, where nothing changes, either. */
const NEAR_PX = 32;
/** Shares of the ink that are hidden at two sizes and are the same to the eye. */
const SAME_SHARE = 0.1;

/**
 * What pixels showed of the spots of a page, for its other sizes: two elements that stand to one another as they did before
 * hide no more and no less of each other; and where as much is hidden at a size below and at one above, as much is between.
 */
export class LookMemory {
  private readonly seen = new Map<string, Look>();
  /** By the two elements of a spot: sizes at which it was looked at. */
  private readonly bySize = new Map<string, Map<number, Look>>();

  /** @param isExact whether each size counts by itself, so that nothing is told from those around it */
  constructor(private readonly isExact: boolean) {}

  /** What is known for one size. A spot is to be asked for before it is kept. */
  at({ view, size, numbers }: LookedAt): KnownLooks {
    /** Spots of the same two elements, from the first to the last. */
    const ordinals = new Map<string, number>();
    const pairs = new Map<Doubt, string>();
    return {
      recall: (doubt) => {
        const both = bothOf(doubt, numbers);
        const ordinal = (ordinals.get(both) ?? 0) + 1;
        ordinals.set(both, ordinal);
        const pair = `${both} ${ordinal}`;
        pairs.set(doubt, pair);
        const known =
          this.seen.get(keyOf(view, doubt, both)) ?? (this.isExact ? undefined : this.between(pair, size));
        if (!known) return undefined;
        const place = doubt.passing ? { bar: view.uid(doubt.passing.bar) } : { at: middleOf(doubt.area) };
        return { ...known, cover: view.uid(doubt.cover), under: view.uid(doubt.under), ...place };
      },
      keep: (doubt, look) => {
        this.seen.set(keyOf(view, doubt, bothOf(doubt, numbers)), look);
        const pair = pairs.get(doubt)!;
        const sizes = this.bySize.get(pair) ?? new Map<number, Look>();
        this.bySize.set(pair, sizes.set(size, look));
      },
    };
  }

  /** What is to be seen at a size between two that are near and show the same. */
  private between(pair: string, size: number): Look | undefined {
    const sizes = [...(this.bySize.get(pair) ?? [])];
    const below = sizes.filter(([at]) => at <= size).sort(([a], [b]) => b - a)[0];
    const above = sizes.filter(([at]) => at >= size).sort(([a], [b]) => a - b)[0];
    if (!below || !above || above[0] - below[0] > NEAR_PX) return undefined;
    return Math.abs(shareOf(below[1]) - shareOf(above[1])) <= SAME_SHARE ? below[1] : undefined;
  }
}

const shareOf = ({ ink, hidden }: Look): number => (ink === 0 ? 0 : hidden / ink);

/** What passes under a bar that stays hides or shows as much wherever it does. */
function bothOf({ cover, under, cuts, byWords, unread, sign, passing }: Doubt, numbers: Int32Array): string {
  if (passing) return `bar ${numbers[passing.bar]!}`;
  const how = [cuts ?? '', byWords ? 'words' : '', unread ? 'unread' : '', sign ?? ''];
  return [numbers[cover], numbers[under], ...how].join(' ');
}

/** At rest, how the two stand counts. */
function keyOf(view: SnapshotView, { cover, under, area, passing }: Doubt, both: string): string {
  if (passing) return both;
  const from = (i: NodeIndex) => placeFrom(area, view.box(i));
  const places = [from(cover), from(under), area.width, area.height].flat().map((px) => Math.round(10 * px));
  return [both, ...places].join(' ');
}

function placeFrom(area: Rect, { x, y, width, height }: Rect): number[] {
  return [x - area.x, y - area.y, width, height];
}
