import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** Wherever this stands once it is built, the package is the nearest folder above with a `package.json`. */
function packageRoot(): string {
  let folder = dirname(fileURLToPath(import.meta.url));
  while (!existsSync(join(folder, 'package.json'))) folder = dirname(folder);
  return folder;
}

const ROOT = packageRoot();

/** The path of a file that ships with the package, given from its root. */
export function packageFile(path: string): string {
  return join(ROOT, path);
}
