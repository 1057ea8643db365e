import { PLACE_KINDS, type Place } from './places.js';

/** The places of one page on all of its renders, as they are kept: few numbers for many places. */
export interface PagePlaces {
  /** The first letter of each place's kind, in the order of their numbers. */
  readonly kinds: string;
  /** By profile: number of a place and its y in CSS px, in turn, from the top down. */
  readonly at: Readonly<Record<string, readonly number[]>>;
}

/** What one render alone has brings nothing together, and is left out. */
export function packPlaces(
  renders: readonly { readonly name: string; readonly places: readonly Place[] }[],
): PagePlaces {
  const times = new Map<string, number>();
  for (const { places } of renders) for (const { key } of places) times.set(key, (times.get(key) ?? 0) + 1);
  const numbers = new Map<string, number>();
  let kinds = '';
  const at: Record<string, number[]> = {};
  for (const { name, places } of renders) {
    at[name] = places.flatMap(({ key, kind, y }) => {
      if (times.get(key)! < 2) return [];
      let number = numbers.get(key);
      if (number === undefined) {
        numbers.set(key, (number = numbers.size));
        kinds += kind.charAt(0);
      }
      return [number, y];
    });
  }
  return { kinds, at };
}

/** The places of one render; their keys are good within this page. */
export function unpackPlaces({ kinds, at }: PagePlaces, profile: string): Place[] {
  const flat = at[profile] ?? [];
  return Array.from({ length: flat.length >> 1 }, (_, i) => {
    const number = flat[2 * i]!;
    const kind = PLACE_KINDS.find((name) => name.charAt(0) === kinds.charAt(number)) ?? 'text';
    return { key: String(number), kind, y: flat[2 * i + 1]! };
  });
}
