import { readdir, stat } from 'node:fs/promises';
import { basename, dirname, join, relative, resolve, sep } from 'node:path';
import { IsopticError, messageOf } from '../core/errors.js';
import { PageIds } from './page-id.js';
import { serveFolder, type LocalServer } from './serve.js';

/** One document to render. */
export interface SitePage {
  readonly id: string;
  /** What the user knows it by: the URL, or the file's path below the target. */
  readonly source: string;
  /** Where the browser loads it from. */
  readonly url: string;
}

export interface Site {
  readonly pages: readonly SitePage[];
  close(): Promise<void>;
}

export interface TargetOptions {
  /** Every HTML file of a folder instead of its `index.html`. */
  readonly all: boolean;
}

/**
 * Turns what the user named into pages, and serves what is local.
 * @throws IsopticError `no-target`, `bad-url`, `target-missing`, `no-html`, `not-html`
 */
export async function openTargets(targets: readonly string[], options: TargetOptions): Promise<Site> {
  const ids = new PageIds();
  const pages: SitePage[] = [];
  const servers: LocalServer[] = [];
  const close = async () => {
    await Promise.all(servers.map((server) => server.close()));
  };
  try {
    for (const target of targets) {
      if (/^[a-z][a-z0-9+.-]*:\/\//i.test(target)) {
        const url = parseUrl(target);
        pages.push({ id: ids.idFor(url.pathname + url.search), source: url.href, url: url.href });
        continue;
      }
      const { server, files, base } = await openLocal(target, options);
      servers.push(server);
      for (const file of files) {
        pages.push({
          id: ids.idFor(relative(base, file).split(sep).join('/')),
          source: relative(base, file).split(sep).join('/'),
          url: `${server.origin}/${relative(server.root, file).split(sep).map(encodeURIComponent).join('/')}`,
        });
      }
    }
  } catch (error) {
    await close();
    throw error;
  }
  return { pages, close };
}

function parseUrl(target: string): URL {
  let url: URL;
  try {
    url = new URL(target);
  } catch {
    throw new IsopticError('bad-url', `${target} is not a valid URL.`, 'Write it as https://host/path.');
  }
  if (url.protocol !== 'http:' && url.protocol !== 'https:') {
    throw new IsopticError(
      'bad-url',
      `${target}: ${url.protocol}// is not supported.`,
      'Give an http or https URL, or the path of a file or folder.',
    );
  }
  if (url.username !== '' || url.password !== '') {
    throw new IsopticError(
      'credentials-in-url',
      `${url.host}${url.pathname}: the URL carries a user name or password, which would end up in the run folder.`,
      'Leave them out of the URL.',
    );
  }
  return url;
}

interface Local {
  readonly server: LocalServer & { readonly root: string };
  readonly files: readonly string[];
  /** The folder that the pages' sources are written from. */
  readonly base: string;
}

async function openLocal(target: string, options: TargetOptions): Promise<Local> {
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
        'Give a file that ends in .html or .htm.',
      );
    }
    return { ...(await serveFile(path)), files: [path], base: dirname(path) };
  }
  const files = await htmlFiles(path);
  if (files.length === 0) {
    throw new IsopticError(
      'no-html',
      `${target}: the folder holds no HTML file.`,
      'Give a folder with .html files.',
    );
  }
  const index = files.find((file) => /^index\.html?$/i.test(basename(file)));
  if (!options.all && index === undefined) {
    throw new IsopticError(
      'no-html',
      `${target}: the folder has no index.html.`,
      `Add --all to check its ${files.length} HTML files, or name one of them.`,
    );
  }
  const server = await serveFolder(path);
  return { server: { ...server, root: path }, files: options.all ? files : [index!], base: path };
}

/**
 * A single file may use what lies beside and above it: it is served from the working folder when it is inside that, and
 * what is not found there is looked for beside the file.
 */
async function serveFile(path: string): Promise<Pick<Local, 'server'>> {
  const folder = dirname(path);
  const fromHere = relative(process.cwd(), path);
  const inside = !fromHere.startsWith('..') && resolve(fromHere) === path;
  const root = inside ? process.cwd() : folder;
  const server = await serveFolder(root, inside ? folder : undefined);
  return { server: { ...server, root } };
}

async function htmlFiles(folder: string): Promise<string[]> {
  const entries = await readdir(folder, { withFileTypes: true });
  return entries
    .filter((entry) => entry.isFile() && isHtml(entry.name) && !entry.name.startsWith('.'))
    .map((entry) => join(folder, entry.name))
    .sort(
      (a, b) =>
        Number(!/index/i.test(basename(a))) - Number(!/index/i.test(basename(b))) || a.localeCompare(b),
    );
}

function isHtml(path: string): boolean {
  return /\.html?$/i.test(path);
}
