// Runs the built program over the pages of a folder, as a user would, without pictures.
import { spawnSync } from 'node:child_process';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const PROGRAM = join(dirname(fileURLToPath(import.meta.url)), '../../dist/cli/main.js');

/**
 * @param folder holds the pages in `site`, and gets the run
 * @param sizes as `--at` takes them
 * @returns the run's manifest
 * @throws what the program said where it told nothing
 */
export function checkSite(folder, sizes) {
  const args = [
    'check',
    join(folder, 'site'),
    '--all',
    '--json',
    '--shots',
    'none',
    '--out',
    join(folder, 'run'),
  ];
  const run = spawnSync(process.execPath, [PROGRAM, ...args, ...sizes.flatMap((size) => ['--at', size])], {
    encoding: 'utf8',
    maxBuffer: 1 << 30,
    cwd: folder,
  });
  if (run.stdout === '') throw new Error(run.stderr);
  return JSON.parse(run.stdout);
}
