import { readdir, readFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parse } from 'yaml';

const WHOLE = join(dirname(fileURLToPath(import.meta.url)), '../whole');

/**
 * The cases of a folder of the collection, in order: `kind` is the rule that a fault is of, or `constructs`. A case that names a `page`
 * stands in that whole page of `bench/whole`.
 */
export async function casesOf(folder) {
  const cases = [];
  for (const file of (await readdir(folder)).filter((name) => name.endsWith('.yaml')).sort()) {
    const kind = file.replace('.yaml', '');
    for (const entry of parse(await readFile(join(folder, file), 'utf8'))) {
      const { page, ...rest } = entry;
      cases.push({ kind, ...rest, ...(page && { ...(await wholePage(page)), wrap: 'none' }) });
    }
  }
  return cases;
}

const pages = new Map();
function wholePage(name) {
  if (!pages.has(name)) pages.set(name, readWhole(name));
  return pages.get(name);
}

/** Its style sheet goes before what a case changes. */
async function readWhole(name) {
  const text = await readFile(join(WHOLE, `${name}.html`), 'utf8');
  const [, css, html] = /^<style>(.*?)<\/style>(.*)$/s.exec(text);
  return { css, html };
}
