import { intersect, union, type Rect } from '../geometry/rect.js';

/** Of a picture around a defect, CSS px: enough to know the place, never more than can be taken in. */
const MARGIN = 40;
const LEAST = { width: 260, height: 150 };
const MOST = { width: 520, height: 320 };

export interface Cropped {
  readonly rect: Rect;
  readonly by: { readonly axis: 'x' | 'y'; readonly px: number } | null;
  readonly lost?: readonly Rect[] | undefined;
  readonly fault?: Rect | undefined;
}

/**
 * The part of a page that shows a defect: round what is lost and, where there is room, round the element at fault; of what is
 * too large, the end where it goes wrong.
 * @param page size of the picture and where on the page it begins, CSS px
 * @returns on the page, CSS px
 */
export function cropArea(
  { rect, by, lost = [], fault }: Cropped,
  { left = 0, width, height }: { readonly left?: number; readonly width: number; readonly height: number },
): Rect {
  const bounds = { x: left, y: 0, width, height };
  const core = (lost.length > 0 ? lost.reduce((a, b) => union(a, b)) : intersect(rect, bounds)) ?? rect;
  const both = fault ? union(core, fault) : core;
  const fits = both.width + 2 * MARGIN <= MOST.width && both.height + 2 * MARGIN <= MOST.height;
  const focus = fits ? both : core;
  const x = along(
    focus.x - left,
    focus.width,
    LEAST.width,
    MOST.width,
    width,
    by?.axis === 'x' && left === 0,
  );
  const y = along(focus.y, focus.height, LEAST.height, MOST.height, height, false);
  return { x: x.from + left, y: y.from, width: x.length, height: y.length };
}

/** One axis of it. @param atEnd whether of what is too long the end is shown */
function along(from: number, length: number, least: number, most: number, all: number, atEnd: boolean) {
  const wanted = Math.min(most, all, Math.max(least, length + 2 * MARGIN));
  const middle = from + length / 2;
  const isLong = length + 2 * MARGIN > wanted;
  const start = !isLong ? middle - wanted / 2 : atEnd ? from + length + MARGIN - wanted : from - MARGIN;
  return { from: Math.max(0, Math.min(all - wanted, start)), length: wanted };
}
