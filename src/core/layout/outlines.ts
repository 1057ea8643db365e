import { cornerHolds, cornerShape } from '../css/corner-shapes.js';
import { hardMask } from '../css/hard-mask.js';
import { lengthOf } from '../css/lengths.js';
import { partedAt, shapeOf, type Shape } from '../css/shapes.js';
import { bottomOf, rightOf, type Rect } from '../geometry/rect.js';
import { clipsAxis } from './clip.js';
import { perNode, perStyle } from './memo.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** A shape that cuts off what stands in an element: rounded corners, a `clip-path`, or a mask with a hard edge. */
export interface Outline {
  readonly node: NodeIndex;
  /** Whether a point, CSS px from the page's top left, is inside; null of a shape that only pixels tell. */
  readonly holds: ((x: number, y: number) => boolean) | null;
}

/** An outline whose form is known. */
export type KnownOutline = Outline & { readonly holds: NonNullable<Outline['holds']> };

/** The outlines that the content of each element is under; empty for most. */
export function outlinesOf(view: SnapshotView): (readonly Outline[])[] {
  const found: (readonly Outline[])[] = [];
  const none: readonly Outline[] = [];
  for (let i = 0; i < view.count; i++) {
    const around = view.containingElement(i);
    const above = around < 0 ? none : found[around]!;
    if (!mayHaveOutline(view, i)) {
      found.push(above);
      continue;
    }
    const own = [roundedCorners(view, i), shape(view, i), mask(view, i)].filter(
      (outline) => outline !== null,
    );
    found.push(own.length > 0 ? [...above, ...own] : above);
  }
  return found;
}

const CORNERS = [
  ['border-top-left-radius', 0, 0, 'corner-top-left-shape'],
  ['border-top-right-radius', 1, 0, 'corner-top-right-shape'],
  ['border-bottom-right-radius', 1, 1, 'corner-bottom-right-shape'],
  ['border-bottom-left-radius', 0, 1, 'corner-bottom-left-shape'],
] as const;

/** Whether a mask may cut: one that is a picture, or a gradient that may have a hard edge. */
export const hasMaskWithEdges = perStyle((view, i) =>
  /^linear-gradient|url\(/.test(view.style(i, 'mask-image')),
);

const mayHaveOutline = perStyle(
  (view, i) => hasRadius(view, i) || view.style(i, 'clip-path') !== 'none' || hasMaskWithEdges(view, i),
);

/** A mask with a hard edge, or a picture. */
function mask(view: SnapshotView, i: NodeIndex): Outline | null {
  const image = view.style(i, 'mask-image');
  if (image.includes('url(')) return { node: i, holds: null };
  const holds = hardMask(image, view.box(i));
  return holds && { node: i, holds };
}

function hasRadius(view: SnapshotView, i: NodeIndex): boolean {
  return CORNERS.some(([property]) => !isZero(view.style(i, property)));
}

/** The padding box with its corners cut, where the element clips along both axes for good. */
function roundedCorners(view: SnapshotView, i: NodeIndex): Outline | null {
  if (!hasRadius(view, i)) return null;
  const cuts = (axis: 'x' | 'y') =>
    clipsAxis(view, i, axis) && !/auto|scroll/.test(view.style(i, `overflow-${axis}`));
  if (!cuts('x') || !cuts('y')) return null;
  const box = view.box(i);
  const radii = CORNERS.map(([property]) => radiusOf(view.style(i, property), box));
  const corners = cornersWithin(box, radii, view.borders(i));
  const shapes = CORNERS.map(([, , , property]) => cornerShape(view.style(i, property)));
  return {
    node: i,
    holds: (x, y) =>
      corners.every(({ atRight, atBottom, radius, centre }, at) => {
        const dx = atRight ? x - centre.x : centre.x - x;
        const dy = atBottom ? y - centre.y : centre.y - y;
        return dx <= 0 || dy <= 0 || cornerHolds(shapes[at]!, dx / radius.x, dy / radius.y);
      }),
  };
}

/**
 * From where to where a drawn box reaches at a height, CSS px from the page's top left: less than its whole width at the height of its rounded
 * corners.
 */
export function reachAt(view: SnapshotView, i: NodeIndex, y: number): { left: number; right: number } {
  const box = view.box(i);
  let [left, right] = [box.x, rightOf(box)];
  for (const { atRight, atBottom, radius, centre } of drawnCorners(view, i)) {
    const dy = atBottom ? y - centre.y : centre.y - y;
    if (dy <= 0 || dy > radius.y) continue;
    const dx = radius.x * Math.sqrt(1 - (dy / radius.y) ** 2);
    if (atRight) right = Math.min(right, centre.x + dx);
    else left = Math.max(left, centre.x - dx);
  }
  return { left, right };
}

const NO_BORDERS = [0, 0, 0, 0] as const;

/** Of four radii, or of four pairs; where only some are pairs, which they are is not kept. */
const drawnCorners = perNode((view, i): readonly Corner[] => {
  const text = view.cornersOf(i);
  if (text === '') return NO_CORNERS;
  const box = view.box(i);
  const values = text.split(' ');
  const each = values.length === 8 ? [0, 2, 4, 6].map((at) => `${values[at]} ${values[at + 1]}`) : values;
  return each.length === 4
    ? cornersWithin(
        box,
        each.map((value) => radiusOf(value, box)),
        NO_BORDERS,
      )
    : NO_CORNERS;
});
const NO_CORNERS: readonly Corner[] = [];

interface Corner {
  readonly atRight: number;
  readonly atBottom: number;
  readonly radius: Radius;
  readonly centre: { readonly x: number; readonly y: number };
}

/**
 * The rounded corners of a box within its borders (CSS Backgrounds 3, sections 5.1 to 5.5: radii of the outer edge less the border; all are
 * made smaller by one factor where two don't fit a side).
 * @param radii from the top left on, as the browser computes them
 * @param borders what is left out at the top, right, bottom and left, CSS px
 */
function cornersWithin(
  outer: Rect,
  radii: readonly Radius[],
  [top, right, bottom, left]: readonly [number, number, number, number],
): Corner[] {
  const [tl, tr, br, bl] = radii;
  if (!tl || !tr || !br || !bl) return [];
  const fit = Math.min(
    1,
    ratio(outer.width, tl.x + tr.x),
    ratio(outer.width, bl.x + br.x),
    ratio(outer.height, tl.y + bl.y),
    ratio(outer.height, tr.y + br.y),
  );
  return CORNERS.map(([, atRight, atBottom], at) => {
    const x = Math.max(0, radii[at]!.x * fit - (atRight ? right : left));
    const y = Math.max(0, radii[at]!.y * fit - (atBottom ? bottom : top));
    return {
      atRight,
      atBottom,
      radius: { x, y },
      centre: {
        x: atRight ? rightOf(outer) - right - x : outer.x + left + x,
        y: atBottom ? bottomOf(outer) - bottom - y : outer.y + top + y,
      },
    };
  });
}

interface Radius {
  readonly x: number;
  readonly y: number;
}

function isZero(value: string): boolean {
  return value === '' || value === '0px';
}

function radiusOf(value: string, box: Rect): Radius {
  const [x = '0px', y = x] = value.split(' ');
  return { x: length(x, box.width), y: length(y, box.height) };
}

function ratio(room: number, wanted: number): number {
  return wanted > 0 ? room / wanted : 1;
}

/**
 * `circle()`, `ellipse()` and `polygon()` of a `clip-path` (CSS Shapes 1, section 3), about the border box, and without its form what is
 * drawn freely: `path()`, `shape()`, and a `clipPath` that is referred to.
 */
function shape(view: SnapshotView, i: NodeIndex): Outline | null {
  const value = view.style(i, 'clip-path');
  if (/^(path|shape|url)\(/.test(value)) return { node: i, holds: null };
  const found = shapeOf(value);
  if (!found || !/^(circle|ellipse|polygon)$/.test(found.kind)) return null;
  const box = view.box(i);
  const holds =
    found.kind === 'polygon'
      ? inPolygon(found.groups, box)
      : inEllipse(found.kind, found.groups[0] ?? [], box);
  return holds && { node: i, holds };
}

function inEllipse(kind: string, given: readonly string[], box: Rect): Outline['holds'] {
  const [size, [atX = '50%', atY = '50%']] = partedAt('at', given);
  const x = length(atX, box.width);
  const y = length(atY, box.height);
  const sides = { x: [x, box.width - x], y: [y, box.height - y] };
  const [first = 'closest-side', second = first] = size;
  const radius = (value: string, axis: 'x' | 'y'): number => {
    // Of a circle, the sides of both axes count.
    const reach = (kind === 'circle' ? [...sides.x, ...sides.y] : sides[axis]).map(Math.abs);
    if (value === 'closest-side') return Math.min(...reach);
    if (value === 'farthest-side') return Math.max(...reach);
    const whole =
      kind === 'circle'
        ? Math.hypot(box.width, box.height) / Math.SQRT2
        : axis === 'x'
          ? box.width
          : box.height;
    return length(value, whole);
  };
  const rx = radius(first, 'x');
  const ry = kind === 'circle' ? rx : radius(second, 'y');
  if (!(rx > 0 && ry > 0)) return null;
  return (px, py) => ((px - box.x - x) / rx) ** 2 + ((py - box.y - y) / ry) ** 2 <= 1;
}

/** By the even-odd rule, which for outlines that don't cross themselves is the same as the other. */
function inPolygon(groups: Shape['groups'], box: Rect): Outline['holds'] {
  const points = groups
    .filter(([x]) => x !== 'nonzero' && x !== 'evenodd')
    .map(([x = '0', y = '0']) => ({ x: box.x + length(x, box.width), y: box.y + length(y, box.height) }));
  if (points.length < 3 || points.some(({ x, y }) => Number.isNaN(x + y))) return null;
  return (x, y) => {
    let inside = false;
    points.forEach((a, at) => {
      const b = points[(at + 1) % points.length]!;
      if (a.y > y !== b.y > y && x < a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x)) inside = !inside;
    });
    return inside;
  };
}

/** A length or percentage, or a place by its name; NaN for what is none. */
function length(text: string, whole: number): number {
  return { left: 0, top: 0, center: whole / 2, right: whole, bottom: whole }[text] ?? lengthOf(text, whole);
}
