import type { Rect } from '../geometry/rect.js';
import { alphaOf } from './colours.js';
import { remembered } from './remembered.js';

/** A stop of a gradient: how opaque it is, and where, as a share of the gradient line or in px of it. */
interface Stop {
  readonly alpha: number;
  readonly at: { readonly share: number } | { readonly px: number };
}

interface Gradient {
  /** Radians, 0 towards the top, clockwise (CSS Images 3, section 3.1). */
  readonly angle: number;
  readonly stops: readonly Stop[];
}

/** Two stops so close to one another are an edge and no fading out, as a share of the line. */
const EDGE = 0.03;
const SEEN = 0.5;
const SIDES: Readonly<Record<string, number>> = { top: 0, right: 90, bottom: 180, left: 270 };

/**
 * Of a mask that is one linear gradient with a hard edge in it, whether a point of the box shows; null for every other mask: one
 * that fades out says itself that there is more, and of a picture its shape is not known.
 * @param image computed value of `mask-image`
 */
export function hardMask(image: string, box: Rect): ((x: number, y: number) => boolean) | null {
  const gradient = gradientOf(image);
  if (!gradient) return null;
  const { angle, stops } = gradient;
  const [dx, dy] = [Math.sin(angle), -Math.cos(angle)];
  const length = Math.abs(box.width * dx) + Math.abs(box.height * dy);
  if (length < 1) return null;
  const places = stops.map(({ alpha, at }) => ({ alpha, at: 'share' in at ? at.share : at.px / length }));
  const isEdge = places.some(({ alpha, at }, i) => {
    const next = places[i + 1];
    return next !== undefined && next.at - at <= EDGE && Math.abs(next.alpha - alpha) >= SEEN;
  });
  if (!isEdge) return null;
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  return (x, y) => {
    const share = 0.5 + ((x - middle.x) * dx + (y - middle.y) * dy) / length;
    const after = places.findIndex(({ at }) => at > share);
    if (after === 0) return places[0]!.alpha >= SEEN;
    if (after < 0) return places.at(-1)!.alpha >= SEEN;
    const [from, to] = [places[after - 1]!, places[after]!];
    const between = to.at > from.at ? (share - from.at) / (to.at - from.at) : 1;
    return from.alpha + between * (to.alpha - from.alpha) >= SEEN;
  };
}

/** The angle of a linear gradient, radians clockwise from upwards; null of anything else. */
export const gradientAngle = (image: string): number | null => gradientOf(image)?.angle ?? null;

const gradientOf = remembered((image): Gradient | null => {
  const inside = /^linear-gradient\((.*)\)$/.exec(image)?.[1];
  if (inside === undefined) return null;
  // Commas inside of colours part nothing.
  const parts = inside.split(/,(?![^(]*\))/).map((part) => part.trim());
  const [first = ''] = parts;
  const degrees = /^(-?[\d.]+)deg$/.exec(first)?.[1] ?? SIDES[/^to (\w+)$/.exec(first)?.[1] ?? ''];
  const stops: Stop[] = [];
  for (const part of degrees === undefined ? parts : parts.slice(1)) {
    const places = [...part.matchAll(/(-?[\d.]+)(%|px)(?=\s|$)/g)];
    const alpha = alphaOf(part.replace(/\s+-?[\d.]+(%|px)(?=\s|$)/g, ''));
    // Of stops without a place the ends are known.
    if (places.length === 0) {
      if (stops.length > 0 && part !== parts.at(-1)) return null;
      stops.push({ alpha, at: { share: stops.length === 0 ? 0 : 1 } });
    }
    for (const [, value, unit] of places)
      stops.push({ alpha, at: unit === '%' ? { share: Number(value) / 100 } : { px: Number(value) } });
  }
  return stops.length < 2 ? null : { angle: (Number(degrees ?? 180) * Math.PI) / 180, stops };
});
