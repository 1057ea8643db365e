import type sharp from 'sharp';

let loaded: Promise<typeof sharp> | null = null;

/**
 * The library for pictures, loaded when the first one is asked for. Nothing is decoded twice in a run, so it keeps no operation for a
 * next time: its memory, of many pictures as of a few, stays that of those at hand.
 */
export function loadSharp(): Promise<typeof sharp> {
  loaded ??= import('sharp').then(({ default: library }) => {
    library.cache(false);
    return library;
  });
  return loaded;
}
