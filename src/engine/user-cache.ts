import { access, constants, lstat, mkdtemp } from 'node:fs/promises';
import { tmpdir, userInfo } from 'node:os';
import { join } from 'node:path';
import { IsopticError, messageOf } from '../core/errors.js';
import { cacheFolder } from './cache-folder.js';
import { makeFolder } from './make-folder.js';

export interface UserCache {
  readonly folder: string;
  /** What is to be said where it is not the folder that it should be. */
  readonly note: string | null;
}

let found: Promise<UserCache> | null = null;

/**
 * Where the unpacked browser and its font settings are kept from one run to the next: the user's cache folder, or where that
 * can't be written a private one among the temporary files.
 * @throws IsopticError `no-cache` where neither can be written
 */
export function userCache(): Promise<UserCache> {
  found ??= findCache();
  return found;
}

async function findCache(): Promise<UserCache> {
  const wanted = cacheFolder();
  try {
    await makeWritable(wanted);
    return { folder: wanted, note: null };
  } catch (error) {
    const folder = await privateFolder(wanted);
    const note =
      `the cache folder ${wanted} can not be written (${messageOf(error)}), so ${folder} is used; ` +
      'set XDG_CACHE_HOME to a folder that can be written to keep the unpacked browser';
    return { folder, note };
  }
}

/** The same folder in every run where it is this user's alone, else a new one. */
async function privateFolder(wanted: string): Promise<string> {
  try {
    const { uid, username } = userInfo();
    const name = `isoptic-cache-${uid < 0 ? username.replace(/\W/g, '-') : uid}`;
    const folder = join(tmpdir(), name);
    await makeFolder(folder, 0o700);
    const { mode, uid: owner } = await lstat(folder);
    const isOwn = uid < 0 || (owner === uid && (mode & 0o077) === 0);
    if (!isOwn) return await mkdtemp(join(tmpdir(), `${name}-`));
    await makeWritable(folder);
    return folder;
  } catch (error) {
    throw new IsopticError(
      'no-cache',
      `Neither the cache folder ${wanted} nor the temporary folder ${tmpdir()} can be written: ${messageOf(error)}.`,
      'Set XDG_CACHE_HOME or TMPDIR to a folder that can be written.',
      4,
    );
  }
}

async function makeWritable(folder: string): Promise<void> {
  await makeFolder(folder);
  await access(folder, constants.W_OK);
}
