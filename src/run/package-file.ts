import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

/** The path of a file that ships with the package, given from its root. */
export function packageFile(path: string): string {
  return fileURLToPath(new URL(`../../${path}`, import.meta.url));
}

export const VERSION: string = (
  JSON.parse(readFileSync(packageFile('package.json'), 'utf8')) as { version: string }
).version;
