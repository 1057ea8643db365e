import { access, readFile, stat } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import type { SnapshotView } from '../../core/layout/view.js';
import { layoutPath, readLayout } from '../layout-file.js';
import type { Manifest, RenderRecord } from '../manifest.js';
import { readRun } from '../read-run.js';

/** What is compared: a run, or what was kept of one. */
export interface Kept {
  /** As it was named. */
  readonly name: string;
  readonly manifest: Manifest;
  /** The layout of a render. @throws IsopticError `no-layout` */
  layout(page: string, profile: string): Promise<SnapshotView>;
  /** Its file as it is kept; null where there is none. */
  layoutFile(page: string, profile: string): Promise<Buffer | null>;
  /** The path of a picture of a render that is there; null where there is none. */
  picture(render: RenderRecord, kind: 'full' | 'fold'): Promise<string | null>;
}

/** A run folder. @throws IsopticError `bad-run` */
export async function keptRun(run: string): Promise<Kept> {
  const manifest = await readRun(run);
  const folder = resolve(run);
  return {
    name: run,
    manifest,
    layout: async (page, profile) => (await readLayout(join(folder, layoutPath(page, profile)))).view,
    layoutFile: (page, profile) => readFile(join(folder, layoutPath(page, profile))).catch(() => null),
    picture: (render, kind) => pathThere(render.shots[kind], folder),
  };
}

async function pathThere(path: string | undefined, folder: string): Promise<string | null> {
  if (path === undefined) return null;
  const full = join(folder, path);
  return access(full).then(
    () => full,
    () => null,
  );
}

/** Whether two files hold the same bytes. */
export async function areSame(a: string, b: string): Promise<boolean> {
  if (a === b) return true;
  const [statA, statB] = await Promise.all([stat(a), stat(b)]);
  if (statA.size !== statB.size) return false;
  const [one, other] = await Promise.all([readFile(a), readFile(b)]);
  return one.equals(other);
}
