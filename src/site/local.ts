import { readdir, stat } from 'node:fs/promises';
import { basename, dirname, join, relative, resolve, sep } from 'node:path';
import { IsopticError, messageOf } from '../core/errors.js';
import { serveFolder } from './serve.js';

export interface LocalSite {
  readonly origin: string;
  readonly pages: readonly { readonly source: string; readonly url: string }[];
  close(): Promise<void>;
}

/**
 * Serves an HTML file or a folder on the loopback address and lists its pages.
 * @throws IsopticError `target-missing`, `no-html`, `not-html`
 */
export async function openLocal(
  target: string,
  options: { all: boolean; recursive?: boolean },
): Promise<LocalSite> {
  const path = resolve(target);
  const info = await stat(path).catch((error: unknown) => {
    throw new IsopticError(
      'target-missing',
      `${target}: ${/ENOENT|ENOTDIR/.test(messageOf(error)) ? 'there is no such file or folder' : messageOf(error)}.`,
      `Looked at ${path}. A page on a server is written with http:// or https://.`,
    );
  });
  if (!info.isDirectory()) {
    if (!isHtml(path)) {
      throw new IsopticError(
        'not-html',
        `${target} is not an HTML file.`,
        'Give a file that ends in .html or .htm, a list (.txt) or a sitemap (.xml).',
      );
    }
    const { root, fallback } = rootOf(path);
    return site(root, fallback, [path], dirname(path));
  }
  const all = options.all || options.recursive === true;
  const files = await htmlFiles(path, options.recursive === true);
  if (files.length === 0) {
    throw new IsopticError(
      'no-html',
      `${target}: the folder holds no HTML file.`,
      'Give a folder with .html files, or add --recursive to look in the folders below it.',
    );
  }
  const index = files.find((file) => dirname(file) === path && /^index\.html?$/i.test(basename(file)));
  if (!all && index === undefined) {
    throw new IsopticError(
      'no-html',
      `${target}: the folder has no index.html.`,
      `Add --all to check its ${files.length} HTML files, or name one of them.`,
    );
  }
  return site(path, undefined, all ? files : [index!], path);
}

async function site(
  root: string,
  fallback: string | undefined,
  files: readonly string[],
  base: string,
): Promise<LocalSite> {
  const server = await serveFolder(root, fallback);
  const slashed = (path: string) => path.split(sep).join('/');
  return {
    origin: server.origin,
    close: () => server.close(),
    pages: files.map((file) => ({
      source: slashed(relative(base, file)),
      url: `${server.origin}/${slashed(relative(root, file)).split('/').map(encodeURIComponent).join('/')}`,
    })),
  };
}

/**
 * A single file may use what lies beside and above it: it is served from the working folder when it is inside that, and
 * what is not found there is looked for beside the file.
 */
function rootOf(file: string): { root: string; fallback: string | undefined } {
  const folder = dirname(file);
  const fromHere = relative(process.cwd(), file);
  const inside = !fromHere.startsWith('..') && resolve(fromHere) === file;
  return inside ? { root: process.cwd(), fallback: folder } : { root: folder, fallback: undefined };
}

async function htmlFiles(folder: string, recursive: boolean): Promise<string[]> {
  const entries = await readdir(folder, { withFileTypes: true, recursive });
  return entries
    .filter((entry) => entry.isFile() && isHtml(entry.name))
    .map((entry) => join(entry.parentPath, entry.name))
    .filter((file) => !/(^|[\\/])(\.|node_modules[\\/])/.test(relative(folder, file)))
    .sort((a, b) => depth(a) - depth(b) || rank(a) - rank(b) || a.localeCompare(b));
}

function depth(file: string): number {
  return file.split(sep).length;
}

function rank(file: string): number {
  return /^index\.html?$/i.test(basename(file)) ? 0 : 1;
}

function isHtml(path: string): boolean {
  return /\.html?$/i.test(path);
}
