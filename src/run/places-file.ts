import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import * as z from 'zod';
import { placesOf, type Place } from '../core/compare/places.js';
import type { RenderView } from '../core/sightings/sighting.js';
import type { RunFolder } from './run-folder.js';

/** Where a page's headings, landmarks and texts are on each of its renders: what brings renders to the same place. */
const placesSchema = z.object({
  /** The first letter of each place's kind, in the order of their numbers. */
  kinds: z.string(),
  /** By profile: number of a place and its y in CSS px, in turn, from the top down. */
  at: z.record(z.string(), z.array(z.number())),
});
export type PagePlaces = z.infer<typeof placesSchema>;

const placesPath = (page: string) => `places/${page}.json`;

/** @param renders of one page, or of one state of it */
export async function writePlaces(
  folder: RunFolder,
  page: string,
  renders: readonly RenderView[],
): Promise<void> {
  if (renders.length < 2) return;
  const all = renders.map(({ device, view }) => ({ name: device.name, places: placesOf(view) }));
  await folder.write(placesPath(page), JSON.stringify(packed(all)));
}

/** Null where the run has none. */
export async function readPlaces(run: string, page: string): Promise<PagePlaces | null> {
  try {
    return placesSchema.parse(JSON.parse(await readFile(join(run, placesPath(page)), 'utf8')));
  } catch {
    return null;
  }
}

/** What one render alone has brings nothing together. */
function packed(
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
