import { readFile } from 'node:fs/promises';
import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import { IsopticError, messageOf } from '../core/errors.js';
import { fromWire, toWire, type WireSnapshot } from '../core/layout/wire.js';
import { SnapshotView } from '../core/layout/view.js';
import type { RenderView } from '../core/sightings/sighting.js';
import type { Redact } from './plan.js';
import type { RunFolder } from './run-folder.js';
import { fileName } from './file-name.js';

/** One render as it is kept: all that a rule looks at. */
interface LayoutFile extends Omit<RenderView, 'view'> {
  readonly format: 'isoptic-layout';
  readonly version: 1;
  readonly snapshot: WireSnapshot;
}

export function layoutPath(page: string, profile: string): string {
  return `layouts/${page}/${fileName(profile)}.json.gz`;
}

/** @param redact a layout holds the page's text and what stands in its fields */
export async function writeLayout(
  folder: RunFolder,
  { view, ...render }: RenderView,
  redact: Redact,
): Promise<string> {
  const file: LayoutFile = {
    format: 'isoptic-layout',
    version: 1,
    ...render,
    snapshot: toWire(view.snapshot),
  };
  const packed = await promisify(gzip)(JSON.stringify(redact(file)));
  return folder.write(layoutPath(render.page, render.device.name), packed);
}

/** @throws IsopticError `no-layout` */
export async function readLayout(path: string): Promise<RenderView> {
  try {
    const text = (await promisify(gunzip)(await readFile(path))).toString('utf8');
    const file = JSON.parse(text) as LayoutFile;
    if ((file.format as string) !== 'isoptic-layout' || (file.version as number) !== 1)
      throw new Error('it is of another format');
    const { page, device, httpStatus, delivery, essentials } = file;
    return {
      page,
      device,
      httpStatus,
      delivery,
      essentials,
      view: new SnapshotView(fromWire(file.snapshot)),
    };
  } catch (error) {
    throw new IsopticError(
      'no-layout',
      `${path}: the layout can not be read (${messageOf(error)}).`,
      'Make the run again with --keep-layouts.',
    );
  }
}
