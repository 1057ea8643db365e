import { readdir, stat } from 'node:fs/promises';
import { basename, dirname, join, relative, resolve, sep } from 'node:path';
import { IsopticError, messageOf } from '../core/errors.js';
import { isWithin } from './is-within.js';

export interface LocalSite {
  readonly origin: string;
  readonly pages: readonly { readonly source: string; readonly url: string; readonly file: string }[];
  /** What the user should know about how it is served. */
  readonly note?: string;
  close(): Promise<void>;
}

/**
 * Serves an HTML file or a folder on the loopback address and lists its pages.
 * @throws IsopticError `target-missing`, `no-html`, `not-html`, `bad-root`
 */
export async function openLocal(
  target: string,
  options: { all: boolean; recursive?: boolean; root?: string | undefined },
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
    return openFile(path, options.root);
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
  const { serveFolder } = await import('./serve.js');
  const server = await serveFolder(root, fallback);
  const slashed = (path: string) => path.split(sep).join('/');
  return {
    origin: server.origin,
    close: () => server.close(),
    pages: files.map((file) => ({
      file,
      source: slashed(relative(base, file)),
      url: `${server.origin}/${slashed(relative(root, file)).split('/').map(encodeURIComponent).join('/')}`,
    })),
  };
}

/** @param named the folder that the user says is the top of the site */
async function openFile(file: string, named: string | undefined): Promise<LocalSite> {
  const folder = dirname(file);
  if (named !== undefined) {
    const root = resolve(named);
    if (!isWithin(file, root)) {
      throw new IsopticError(
        'bad-root',
        `--root ${named}: ${file} does not lie in it.`,
        'Name a folder that holds the page and what it uses.',
      );
    }
    return site(root, undefined, [file], folder);
  }
  const { rootOf } = await import('./root-of.js');
  const { folder: root, found, references } = await rootOf(file);
  // What the page asks for from the top of the site and is not there may lie beside it.
  const served = await site(root, root === folder ? undefined : folder, [file], folder);
  if (root === folder || root === process.cwd()) return served;
  const most =
    found === references ? 'what it uses is' : `${found} of the ${references} files that it uses are`;
  return { ...served, note: `${file} is served from ${root}, where ${most}; --root names another folder` };
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
