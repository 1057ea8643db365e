import { writeFile } from 'node:fs/promises';
import { IsopticError, messageOf } from '../core/errors.js';

/** Writes a file that the user named. @throws IsopticError `out-unwritable` */
export async function writeOut(path: string, file: Buffer, option: string): Promise<void> {
  try {
    await writeFile(path, file);
  } catch (error) {
    throw new IsopticError(
      'out-unwritable',
      `${option} ${path}: the file can not be written (${messageOf(error)}).`,
      'Name another one.',
    );
  }
}
