import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/**
 * Wherever this stands once it is built, the package is the nearest folder above with a `package.json`.
 * @throws Error where there is none: the program was copied out of its package
 */
function packageRoot(): string {
  const from = dirname(fileURLToPath(import.meta.url));
  for (let folder = from; ; folder = dirname(folder)) {
    if (existsSync(join(folder, 'package.json'))) return folder;
    if (dirname(folder) === folder)
      throw new Error(
        `no package.json in ${from} or above it: isoptic must stand in its package; install it again`,
      );
  }
}

const ROOT = packageRoot();

/** The path of a file that ships with the package, given from its root. */
export function packageFile(path: string): string {
  return join(ROOT, path);
}
