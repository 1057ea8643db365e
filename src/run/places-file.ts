import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import * as z from 'zod';
import { packPlaces, type PagePlaces } from '../core/compare/packed-places.js';
import { placesOf } from '../core/compare/places.js';
import type { RenderView } from '../core/sightings/sighting.js';
import type { RunFolder } from './run-folder.js';

/** Where a page's headings, landmarks and texts are on each of its renders: what brings renders to the same place. */
const placesSchema = z.object({
  kinds: z.string(),
  at: z.record(z.string(), z.array(z.number())),
});

const placesPath = (page: string) => `places/${page}.json`;

/** @param renders of one page, or of one state of it */
export async function writePlaces(
  folder: RunFolder,
  page: string,
  renders: readonly RenderView[],
): Promise<void> {
  if (renders.length < 2) return;
  const all = renders.map(({ device, view }) => ({ name: device.name, places: placesOf(view) }));
  await folder.write(placesPath(page), JSON.stringify(packPlaces(all)));
}

/** Null where the run has none. */
export async function readPlaces(run: string, page: string): Promise<PagePlaces | null> {
  try {
    return placesSchema.parse(JSON.parse(await readFile(join(run, placesPath(page)), 'utf8')));
  } catch {
    return null;
  }
}
