import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { messageOf } from '../core/errors.js';
import type { Manifest } from './manifest.js';
import { folderBytes } from './folder-bytes.js';
import { readRun } from './read-run.js';

/** Where commands write runs unless they are told otherwise. */
export const RUNS_FOLDER = 'isoptic-runs';

export interface FoundRun {
  readonly path: string;
  readonly manifest: Manifest;
  /** Of all its files. */
  readonly bytes: number;
}

/** Runs lie in a folder or in folders in it: a demo writes two. */
const MOST_DEPTH = 3;

/**
 * The runs in a folder, the newest first, and in words those that can't be read.
 * @param folder a run itself, or what runs lie in; nothing is found in one that is not there
 */
export async function findRuns(folder: string): Promise<{ runs: FoundRun[]; notes: string[] }> {
  const runs: FoundRun[] = [];
  const notes: string[] = [];
  const look = async (path: string, depth: number): Promise<void> => {
    const entries = await readdir(path, { withFileTypes: true }).catch(() => []);
    if (entries.some((entry) => entry.name === 'run.json')) {
      await readRun(path).then(
        async (manifest) => void runs.push({ path, manifest, bytes: await folderBytes(path) }),
        (error: unknown) => void notes.push(messageOf(error)),
      );
      return;
    }
    if (depth >= MOST_DEPTH) return;
    for (const entry of entries) if (entry.isDirectory()) await look(join(path, entry.name), depth + 1);
  };
  await look(folder, 0);
  runs.sort((a, b) => b.manifest.startedAt.localeCompare(a.manifest.startedAt));
  return { runs, notes };
}
