import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { dirname, join, resolve } from 'node:path';
import { Parser } from 'htmlparser2';
import { isWithin } from './is-within.js';

/** The folder that a single file is served from, and how many of its references lie in it. */
export interface ServedRoot {
  readonly folder: string;
  readonly found: number;
  readonly references: number;
}

/**
 * The folder that serves most of what a file refers to: style sheets, scripts and pictures that lie beside it, above it
 * (`../assets/…`), or from the top of the site (`/assets/…`). Of several, the working folder, then the nearest.
 */
export async function rootOf(file: string, workingFolder = process.cwd()): Promise<ServedRoot> {
  const references = await referencesOf(file);
  const folder = dirname(file);
  const above: string[] = [];
  // The top of the file system is nobody's site.
  for (let at = folder; dirname(at) !== at; at = dirname(at)) above.push(at);
  const candidates = isWithin(file, workingFolder) ? [workingFolder, ...above] : above;
  const counted = candidates.map((candidate) => ({
    folder: candidate,
    found: references.filter((reference) => isServed(reference, folder, candidate)).length,
    references: references.length,
  }));
  return counted.reduce((best, each) => (each.found > best.found ? each : best));
}

/** What an HTML file loads from its own site, as it is written, queries left out. */
async function referencesOf(file: string): Promise<string[]> {
  const found = new Set<string>();
  const add = (url: string | undefined) => {
    const bare = url?.trim().split(/[?#]/, 1)[0] ?? '';
    if (bare !== '' && !/^([a-z][a-z0-9+.-]*:|\/\/)/i.test(bare)) found.add(bare);
  };
  const parser = new Parser({
    onopentag(name, { rel, href, src }) {
      if (name === 'link' && /\b(stylesheet|icon|preload)\b/i.test(rel ?? '')) add(href);
      if (/^(script|img|source|video|audio|iframe|embed|input)$/.test(name)) add(src);
    },
  });
  parser.end(await readFile(file, 'utf8').catch(() => ''));
  return [...found];
}

function isServed(reference: string, folder: string, root: string): boolean {
  const path = decoded(reference);
  const file = path.startsWith('/') ? join(root, path) : resolve(folder, path);
  return isWithin(file, root) && existsSync(file);
}

function decoded(path: string): string {
  try {
    return decodeURIComponent(path);
  } catch {
    return path;
  }
}
