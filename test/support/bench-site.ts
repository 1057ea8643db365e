import { copyFile, mkdir, readdir, readFile, writeFile } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { parse } from 'yaml';
import { isSampled } from './sampled.js';

interface BenchCase {
  readonly name: string;
  readonly html: string;
}

const PAGES = 'bench/pages';

/**
 * Writes pages of the collection in `bench/pages` into a folder: faults as they are, and correct constructs, sampled.
 * @returns how many were written
 */
export async function writeBenchSite(folder: string, oneOf: number, inVerify = 1): Promise<number> {
  const { pageOf } = (await import(resolve('bench/lib/bench-page.mjs'))) as {
    pageOf: (entry: BenchCase & { form: string }) => string;
  };
  await mkdir(folder, { recursive: true });
  await copyFile(join(PAGES, 'harbour.svg'), join(folder, 'harbour.svg'));
  let written = 0;
  for (const file of (await readdir(PAGES)).filter((name) => name.endsWith('.yaml'))) {
    const kind = file.replace('.yaml', '');
    for (const entry of parse(await readFile(join(PAGES, file), 'utf8')) as BenchCase[]) {
      const name = `${kind}--${entry.name}`;
      if (!isSampled(name, oneOf, inVerify)) continue;
      const form = kind === 'constructs' ? 'correct' : 'fault';
      await writeFile(join(folder, `${name}.html`), pageOf({ ...entry, form }));
      written++;
    }
  }
  return written;
}
