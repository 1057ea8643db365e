import { readFile } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { IsopticError, messageOf } from '../core/errors.js';
import { manifestSchema, type Manifest } from './manifest.js';

/** The manifest of a run folder. @throws IsopticError `bad-run` */
export async function readRun(run: string): Promise<Manifest> {
  const path = join(resolve(run), 'run.json');
  try {
    return manifestSchema.parse(JSON.parse(await readFile(path, 'utf8')));
  } catch (error) {
    throw new IsopticError(
      'bad-run',
      `${run}: there is no run that can be read (${messageOf(error).split('\n', 1)[0]!}).`,
      'Name the folder that a check wrote.',
    );
  }
}
