import { dirname, join } from 'node:path';
import writeFileAtomic from 'write-file-atomic';
import { IsopticError, messageOf } from '../core/errors.js';
import { SEVERITIES } from '../core/sightings/sighting.js';
import { makeFolder } from '../engine/make-folder.js';
import { FORMATS, type FormatName } from '../report/formats.js';
import type { Manifest } from '../run/manifest.js';

/** Writes a run in some formats into a folder. @param failOn what fails a case; where nothing does, errors do */
export async function writeFormats(
  manifest: Manifest,
  folder: string,
  names: readonly FormatName[],
  failOn: string,
  browser: string | undefined,
): Promise<void> {
  for (const name of names) {
    const { file, make } = FORMATS[name];
    await writeReport(
      join(folder, file),
      await make(manifest, { run: folder, failOn: severityOf(failOn), browser }),
    );
  }
}

/** @throws IsopticError `out-unwritable` */
export async function writeReport(path: string, content: string | Buffer): Promise<void> {
  try {
    await makeFolder(dirname(path));
    await writeFileAtomic(path, content);
  } catch (error) {
    throw new IsopticError(
      'out-unwritable',
      `${path}: the report can not be written (${messageOf(error)}).`,
      'Name another place with --out.',
    );
  }
}

function severityOf(text: string) {
  return SEVERITIES.find((severity) => severity === text) ?? 'error';
}
