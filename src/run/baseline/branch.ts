import { readFile, stat } from 'node:fs/promises';
import { dirname, join, resolve } from 'node:path';

/** The branch of the git repository that a folder lies in; null outside of one, and where no branch is checked out. */
export async function branchOf(folder: string): Promise<string | null> {
  for (let at = resolve(folder); ; at = dirname(at)) {
    const git = join(at, '.git');
    const is = await stat(git).catch(() => null);
    if (is) {
      // A worktree has a file that says where its own folder is.
      const own = is.isFile()
        ? resolve(at, (await readFile(git, 'utf8')).replace(/^gitdir:\s*/, '').trim())
        : git;
      const head = await readFile(join(own, 'HEAD'), 'utf8').catch(() => '');
      return /^ref: refs\/heads\/(.+)$/m.exec(head)?.[1]?.trim() ?? null;
    }
    if (dirname(at) === at) return null;
  }
}
