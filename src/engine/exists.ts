import { access } from 'node:fs/promises';

/** Whether there is a file or folder at a path. */
export async function exists(path: string): Promise<boolean> {
  return access(path).then(
    () => true,
    () => false,
  );
}
