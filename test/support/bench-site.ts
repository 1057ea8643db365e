import { copyFile, mkdir, writeFile } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { isSampled } from './sampled.js';

interface BenchCase {
  readonly kind: string;
  readonly name: string;
  readonly html: string;
}

const PAGES = 'bench/pages';
const fromBench = <T>(file: string) => import(resolve('bench/lib', file)) as Promise<T>;

/**
 * Writes pages of the collection in `bench/pages` into a folder: faults as they are, and correct constructs, sampled.
 * @returns how many were written
 */
export async function writeBenchSite(folder: string, oneOf: number, inVerify = 1): Promise<number> {
  const { pageOf } = await fromBench<{ pageOf: (entry: BenchCase & { form: string }) => string }>(
    'bench-page.mjs',
  );
  const { casesOf } = await fromBench<{ casesOf: (from: string) => Promise<BenchCase[]> }>('cases.mjs');
  await mkdir(folder, { recursive: true });
  await copyFile(join(PAGES, 'harbour.svg'), join(folder, 'harbour.svg'));
  let written = 0;
  for (const entry of await casesOf(PAGES)) {
    const name = `${entry.kind}--${entry.name}`;
    if (!isSampled(name, oneOf, inVerify)) continue;
    const form = entry.kind === 'constructs' ? 'correct' : 'fault';
    await writeFile(join(folder, `${name}.html`), pageOf({ ...entry, form }));
    written++;
  }
  return written;
}
