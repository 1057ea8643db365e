import { relative } from 'node:path';

/** Whether a file, or a folder, is a folder or lies in it. */
export function isWithin(file: string, folder: string): boolean {
  return !relative(folder, file).startsWith('..');
}
