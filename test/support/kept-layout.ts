import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { SnapshotView } from '../../src/core/layout/view.js';
import { layoutPath, readLayout } from '../../src/run/layout-file.js';
import { isoptic, manifestOf } from './program.js';

/** The layout of a page on one profile, as the built program reads it in the browser and keeps it. @param folder to write into */
export async function keptLayout(folder: string, html: string, profile: string): Promise<SnapshotView> {
  const path = join(folder, 'page.html');
  await writeFile(path, html);
  const out = join(folder, 'run');
  const args = [
    '--at',
    profile,
    '--shots',
    'none',
    '--json',
    '--fail-on',
    'never',
    '--replace',
    '--out',
    out,
  ];
  const { pages } = manifestOf(await isoptic(['check', path, ...args]));
  return (await readLayout(join(out, layoutPath(pages[0]!.id, profile)))).view;
}
