import { readdir, stat } from 'node:fs/promises';
import { join } from 'node:path';

/** The bytes of all files in a folder and below it; 0 for one that is not there. */
export async function folderBytes(folder: string): Promise<number> {
  const entries = await readdir(folder, { withFileTypes: true, recursive: true }).catch(() => []);
  const sizes = await Promise.all(
    entries
      .filter((entry) => entry.isFile())
      .map((entry) =>
        stat(join(entry.parentPath, entry.name)).then(
          ({ size }) => size,
          () => 0,
        ),
      ),
  );
  return sizes.reduce((sum, size) => sum + size, 0);
}
