import { lengthOf } from '../css/lengths.js';
import { perStyle } from './memo.js';
import type { NodeIndex, SnapshotView } from './view.js';

/** What the transform properties of an element do to it in the plane, but for the moves of `translate`, which go by its size. */
interface Transform {
  /** Columns of the 2 × 2 part: what is drawn from (1, 0), and from (0, 1). */
  readonly linear: readonly [number, number, number, number];
  /** By how far `transform` moves it, CSS px. */
  readonly x: number;
  readonly y: number;
  /** Turned out of the plane, or drawn on a path: what is said of it above is not all. */
  readonly isMore: boolean;
}

/** What `rotate`, `scale` and `transform` do together, in this order (CSS Transforms 2, section 3). */
const transformOf = perStyle((view, i): Transform => {
  const [sx, sy] = scaleOf(view.style(i, 'scale'));
  const rotate = view.style(i, 'rotate');
  const turn = degreesOf(rotate);
  const { matrix, isFlat } = matrixOf(view.style(i, 'transform'));
  const [a, b, c, d, x, y] = matrix;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const turned = (left: number, down: number) =>
    [cos * sx * left - sin * sy * down, sin * sx * left + cos * sy * down] as const;
  const isOnPath = !isNone(view.style(i, 'offset-path'));
  return {
    linear: [...turned(a, b), ...turned(c, d)],
    x: turned(x, y)[0],
    y: turned(x, y)[1],
    isMore: !isFlat || isOnPath || (!isNone(rotate) && !DEGREES.test(rotate)),
  };
});

const DEGREES = /^(-?[\d.e-]+)deg$/;

function degreesOf(rotate: string): number {
  return (Number(DEGREES.exec(rotate)?.[1] ?? 0) * Math.PI) / 180;
}

function scaleOf(scale: string): readonly [number, number] {
  const [x = 1, y = x] = isNone(scale) ? [] : scale.split(' ').map(Number);
  return [x, y];
}

type Matrix = readonly [number, number, number, number, number, number];
const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];

function matrixOf(transform: string): { readonly matrix: Matrix; readonly isFlat: boolean } {
  const found = /^matrix\(([^)]*)\)$/.exec(transform);
  if (!found) return { matrix: IDENTITY, isFlat: isNone(transform) };
  return { matrix: found[1]!.split(',').map(Number) as unknown as Matrix, isFlat: true };
}

function isNone(value: string): boolean {
  return value === 'none' || value === '';
}

/** Less than this is nothing that is turned or drawn larger. */
const NEAR = 1e-3;

/** Moved, turned or drawn larger or smaller by `transform` or one of the properties beside it. */
export function isMoved(view: SnapshotView, i: NodeIndex): boolean {
  const { x, y, isMore } = transformOf(view, i);
  const translate = view.style(i, 'translate');
  const isTranslated = !isNone(translate) && !/^0px( 0px)*$/.test(translate);
  return isTranslated || isMore || x !== 0 || y !== 0 || !isOfItsSize(view, i);
}

/** Neither turned nor drawn larger or smaller. */
function isOfItsSize(view: SnapshotView, i: NodeIndex): boolean {
  return transformOf(view, i).linear.every((value, at) => Math.abs(value - IDENTITY[at]!) < NEAR);
}

/** The space between two lengths, and not one within a math function. */
const BETWEEN = / (?![^(]*\))/;

/** By how far transforms move an element, CSS px; null where they turn or scale it as well. */
export function movedBy(view: SnapshotView, i: NodeIndex): { readonly x: number; readonly y: number } | null {
  const transform = transformOf(view, i);
  if (transform.isMore || !isOfItsSize(view, i)) return null;
  const { width, height } = view.box(i);
  const translate = view.style(i, 'translate');
  const [x = '0px', y = '0px'] = isNone(translate) ? [] : translate.split(BETWEEN);
  return { x: transform.x + (lengthOf(x, width) || 0), y: transform.y + (lengthOf(y, height) || 0) };
}

/** Whether transforms draw an element larger about its own place and do nothing else. */
export function isScaledUp(view: SnapshotView, i: NodeIndex): boolean {
  const { linear, x, y, isMore } = transformOf(view, i);
  const [a, b, c, d] = linear;
  const isTurned = Math.abs(b) >= NEAR || Math.abs(c) >= NEAR || a <= 0 || d <= 0;
  return !isMore && !isTurned && x === 0 && y === 0 && Math.max(a, d) > 1;
}

/** How far an element's own transforms turn it clockwise, radians; NaN where they skew it. */
export function turnOf(view: SnapshotView, i: NodeIndex): number {
  const [a, b, c, d] = transformOf(view, i).linear;
  // Of a rotation the two columns stand at right angles.
  if (Math.abs(a * c + b * d) > NEAR * Math.hypot(a, b) * Math.hypot(c, d)) return NaN;
  return Math.atan2(b, a);
}
