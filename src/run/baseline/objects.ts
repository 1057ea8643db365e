import { createHash } from 'node:crypto';
import { access, readdir, rename, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { makeFolder } from '../../engine/make-folder.js';

const FOLDER = 'objects';

/** Files by what is in them: what two runs have alike is there once. A name is a digest of the content with its ending. */
export class Objects {
  constructor(private readonly folder: string) {}

  path(name: string): string {
    return join(this.folder, FOLDER, name.slice(0, 2), name);
  }

  /** @param ending of the file: `webp` */
  async add(content: Buffer, ending: string): Promise<string> {
    const digest = createHash('sha256').update(content).digest('hex').slice(0, 40);
    const name = `${digest}.${ending}`;
    const path = this.path(name);
    const isThere = await access(path).then(
      () => true,
      () => false,
    );
    if (isThere) return name;
    await makeFolder(dirname(path));
    // Whole or not at all: others may read the folder meanwhile.
    const partial = `${path}.${process.pid}.partial`;
    await writeFile(partial, content);
    await rename(partial, path);
    return name;
  }

  /** Removes what nothing names any more. @returns how many files */
  async keepOnly(names: ReadonlySet<string>): Promise<number> {
    const files = await readdir(join(this.folder, FOLDER), { recursive: true, withFileTypes: true }).catch(
      () => [],
    );
    const gone = files.filter((entry) => entry.isFile() && !names.has(entry.name));
    await Promise.all(gone.map((entry) => rm(join(entry.parentPath, entry.name), { force: true })));
    return gone.length;
  }
}
