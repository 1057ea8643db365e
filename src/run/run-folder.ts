import { readdir, rm, rmdir, stat, writeFile } from 'node:fs/promises';
import { dirname, join, resolve } from 'node:path';
import writeFileAtomic from 'write-file-atomic';
import { IsopticError, messageOf } from '../core/errors.js';
import { makeFolder } from '../engine/make-folder.js';
import type { Manifest } from './manifest.js';

/** The folder of one run. Paths given and returned are relative to it, with `/` between their parts. */
export class RunFolder {
  private constructor(readonly path: string) {}

  /**
   * Makes the folder, which must be new or empty; with `replace` a folder that holds an earlier run is emptied first.
   * @throws IsopticError `run-exists`, `out-unwritable`
   */
  static async create(path: string, replace: boolean): Promise<RunFolder> {
    const full = resolve(path);
    try {
      const entries = await readdir(full).catch((error: unknown) => {
        if (/ENOENT/.test(messageOf(error))) return [];
        throw error;
      });
      if (entries.length > 0) await clear(full, path, entries, replace);
      await makeFolder(full);
      // Found out now, not after all pages are rendered; and pictures must not take the last of the disk.
      await writeFile(join(full, ROOM), Buffer.alloc(ROOM_BYTES));
    } catch (error) {
      if (error instanceof IsopticError) throw error;
      throw new IsopticError(
        'out-unwritable',
        `--out ${path}: the run folder can not be written (${messageOf(error)}).`,
        'Name another folder with --out.',
      );
    }
    return new RunFolder(full);
  }

  /** A folder that a run was written to before. */
  static open(path: string): RunFolder {
    return new RunFolder(resolve(path));
  }

  /** Takes a run away, and nothing that no run wrote. @throws IsopticError `run-exists`, `out-unwritable` */
  static async remove(path: string): Promise<void> {
    const full = resolve(path);
    try {
      await clear(full, path, await readdir(full), true);
      await rmdir(full);
    } catch (error) {
      if (error instanceof IsopticError) throw error;
      throw new IsopticError(
        'out-unwritable',
        `${path}: the run can not be removed (${messageOf(error)}).`,
        'See to it that you may write there.',
      );
    }
  }

  async write(relativePath: string, content: string | Buffer): Promise<string> {
    const full = join(this.path, relativePath);
    try {
      await writeFile(full, content);
    } catch (error) {
      // The first file of a folder.
      if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
      await makeFolder(dirname(full));
      await writeFile(full, content);
    }
    return relativePath;
  }

  full(relativePath: string): string {
    return join(this.path, relativePath);
  }

  /** Gives up the room that was kept for the report and the manifest. */
  async useRoom(): Promise<void> {
    await rm(join(this.path, ROOM), { force: true });
  }

  /** A file that is there whole or not at all. */
  async writeWhole(relativePath: string, content: string): Promise<void> {
    await writeFileAtomic(join(this.path, relativePath), content);
  }

  /** Writes the manifest under another name first, so that a `run.json` is never half there. */
  async writeManifest(manifest: Manifest): Promise<void> {
    await writeFileAtomic(join(this.path, 'run.json'), `${JSON.stringify(manifest, null, 2)}\n`);
  }
}

/** Kept free for what is written last. */
const ROOM = '.isoptic-room';
const ROOM_BYTES = 4 * 2 ** 20;

/** Only what a run wrote is removed: never a folder that merely was named by mistake. */
const OWN_ENTRIES =
  /^(\.isoptic-room|run\.json(\.\d+)?|\.run\.json\.new|report\.(html|csv|junit\.xml|sarif|md|pdf)|sign-in\.failed\.png|shots|evidence|layouts|places|heat|a|b|compare\.(json|html)|sheet\.(png|webp|pdf))$/;

async function clear(
  full: string,
  shown: string,
  entries: readonly string[],
  replace: boolean,
): Promise<void> {
  const isRun = (await stat(join(full, 'run.json')).catch(() => null)) !== null;
  if (!replace) {
    throw new IsopticError(
      'run-exists',
      `${shown}: ${isRun ? 'a run is already there' : 'the folder is not empty'}.`,
      isRun
        ? 'Name another folder, or add --replace to put this run in its place.'
        : 'Name a new or empty folder.',
    );
  }
  const foreign = entries.filter((entry) => !OWN_ENTRIES.test(entry));
  if (foreign.length > 0) {
    throw new IsopticError(
      'run-exists',
      `${shown}: the folder holds files that no run wrote (${foreign.slice(0, 3).join(', ')}), so it stays as it is.`,
      'Name another folder, or take these files out of it.',
    );
  }
  await Promise.all(entries.map((entry) => rm(join(full, entry), { recursive: true, force: true })));
}
