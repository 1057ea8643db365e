import { longestRising } from './in-order.js';
import { PLACE_KINDS, type Place } from './places.js';

/** A render as it is looked at through a window of its own: `factor` window px a CSS px. */
export interface Looked {
  /** From the top down. */
  readonly places: readonly Place[];
  /** Of the whole page, CSS px. */
  readonly pageHeight: number;
  readonly factor: number;
  /** Window px. */
  readonly windowHeight: number;
}

/** Where readers look: this share of a window from its top. */
const EYE = 0.3;

/**
 * How far another render has to be scrolled to show at the same height what one shows: the heading, landmark or text that both
 * have and that stands nearest above the reader's eye. Between places that both have, the way is divided evenly.
 * @param scrolled window px
 * @returns window px, within what can be scrolled to
 */
export function scrollToSamePlace(from: Looked, scrolled: number, to: Looked): number {
  const most = Math.max(0, to.pageHeight * to.factor - to.windowHeight);
  const clamped = (value: number) => Math.min(most, Math.max(0, value));
  if (scrolled <= 0) return 0;
  const shared = sharedPlaces(from.places, to.places);
  const eye = scrolled + EYE * Math.min(from.windowHeight, to.windowHeight);
  const seen = shared.filter(({ a }) => a * from.factor >= scrolled && a * from.factor <= eye);
  for (const kind of PLACE_KINDS) {
    const last = seen.filter((place) => place.kind === kind).at(-1);
    if (last) return clamped(last.b * to.factor - (last.a * from.factor - scrolled));
  }
  const y = eye / from.factor;
  const above = shared.filter(({ a }) => a <= y).at(-1) ?? { a: 0, b: 0 };
  const below = shared.find(({ a }) => a > y) ?? { a: from.pageHeight, b: to.pageHeight };
  const share = below.a > above.a ? (y - above.a) / (below.a - above.a) : 0;
  return clamped((above.b + share * (below.b - above.b)) * to.factor - (eye - scrolled));
}

interface SharedPlace extends Pick<Place, 'kind'> {
  /** CSS px from the top of the one page and of the other. */
  readonly a: number;
  readonly b: number;
}

/** What both have and in the same order: of what was moved, nothing is gone by. */
function sharedPlaces(from: readonly Place[], to: readonly Place[]): SharedPlace[] {
  const others = new Map(to.map((place) => [place.key, place.y]));
  const pairs = from.flatMap(({ key, kind, y }) => {
    const other = others.get(key);
    return other === undefined ? [] : [{ kind, a: y, b: other }];
  });
  return longestRising(pairs.map(({ b }) => b)).map((at) => pairs[at]!);
}
