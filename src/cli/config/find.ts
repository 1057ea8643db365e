import { access } from 'node:fs/promises';
import { dirname, join, resolve } from 'node:path';

export const CONFIG_FILES = ['isoptic.yaml', 'isoptic.yml', 'isoptic.json'];

/** The configuration's path: the file named, or the nearest one from the working folder upwards; null where there is none. */
export async function configFile(named: string | undefined): Promise<string | null> {
  return named === undefined ? findUpwards(process.cwd()) : resolve(named);
}

async function findUpwards(from: string): Promise<string | null> {
  for (let folder = from; ; folder = dirname(folder)) {
    for (const name of CONFIG_FILES) {
      const path = join(folder, name);
      if (
        await access(path).then(
          () => true,
          () => false,
        )
      )
        return path;
    }
    if (dirname(folder) === folder) return null;
  }
}
