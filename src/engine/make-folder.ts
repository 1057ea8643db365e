import { mkdir, stat } from 'node:fs/promises';
import { dirname } from 'node:path';

/**
 * Makes a folder and those above it that are missing. Node's own `recursive` never ends where a folder can be seen and
 * nothing can be made in it, as below `/proc`.
 * @throws the system's error for the first folder that can't be made
 */
export async function makeFolder(path: string, mode = 0o777): Promise<void> {
  try {
    await mkdir(path, { mode });
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (await isFolder(path)) return;
    if (code !== 'ENOENT' || dirname(path) === path) throw error;
    await makeFolder(dirname(path), mode);
    // Another one may have made it meanwhile; where it can't be made all the same, there is no third time.
    await mkdir(path, { mode }).catch(async (failure: unknown) => {
      if (!(await isFolder(path))) throw failure;
    });
  }
}

const isFolder = (path: string) =>
  stat(path).then(
    (found) => found.isDirectory(),
    () => false,
  );
