import { readFile } from 'node:fs/promises';
import { extname, join } from 'node:path';
import type { Manifest } from '../../run/manifest.js';
import type { ReportData } from '../view/data.js';

/** The pictures of a run as data URLs by their path; those that are gone are left out. */
export async function embeddedPictures(manifest: Manifest, run: string): Promise<ReportData['pictures']> {
  const paths = new Set([
    ...manifest.renders.flatMap(({ shots }) => Object.values(shots)),
    ...manifest.findings.flatMap(({ seen }) => seen.map(({ evidence }) => evidence)),
    ...(manifest.sweep ?? []).flatMap(({ shots = [] }) => shots.map(({ file }) => file)),
  ]);
  const found: Record<string, string> = {};
  for (const path of paths) {
    if (path === undefined) continue;
    const bytes = await readFile(join(run, path)).catch(() => null);
    if (bytes) found[path] = `data:image/${extname(path).slice(1)};base64,${bytes.toString('base64')}`;
  }
  return found;
}
