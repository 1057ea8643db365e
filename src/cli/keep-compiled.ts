import { existsSync } from 'node:fs';
import module from 'node:module';
import { join } from 'node:path';
import { cacheFolder } from '../engine/cache-folder.js';

/** Not in every version of Node.js that the program runs on: from 22.1 on. */
type CompileCache = { enableCompileCache?(folder: string): unknown };

/**
 * Keeps what V8 compiles in the user's cache folder, so that a next start need not compile it again. Not in Node's own place for that,
 * a folder for temporary files, where anybody may put something. Does nothing before
 * that folder is there: where there can be none, Node may try to make it for ever.
 */
export function keepCompiled(): void {
  const folder = cacheFolder();
  if (existsSync(folder)) (module as CompileCache).enableCompileCache?.(join(folder, 'compiled'));
}
