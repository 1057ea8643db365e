import { dirname, resolve, sep } from 'node:path';
import { IsopticError } from '../core/errors.js';
import { NO_ACCESS, type Access } from '../engine/access.js';
import { parseList } from './list-file.js';
import { openLocal } from './local.js';
import { PageIds } from './page-id.js';
import { isUrl, readText } from './read-text.js';

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
  /** What the user should know about how the pages were found: limits that were reached, links left out. */
  readonly notes: readonly string[];
  close(): Promise<void>;
}

export interface TargetOptions {
  /** Every HTML file of a folder instead of its `index.html`. */
  readonly all: boolean;
  /** The same, in the folders below it as well. */
  readonly recursive?: boolean;
  /** The folder that a single HTML file is served from, where it is not to be found out. */
  readonly root?: string | undefined;
  /** Follow links inside a site, so many links away; 0 is not at all. */
  readonly follow?: number;
  readonly maxPages?: number;
  readonly robots?: boolean;
  /** Where a list's pages are taken from: one list against staging and live. */
  readonly baseUrl?: string | undefined;
  /** What is sent along when lists, sitemaps and links are read. */
  readonly access?: Access;
}

/** A page before it has its id. */
interface Found {
  /** What the id is made of: a path. */
  readonly path: string;
  readonly source: string;
  readonly url: string;
  /** The host, for pages that are not served from here. */
  readonly host: string | null;
  /** The file that it was named by. */
  readonly file?: string;
}

/** What is kept while targets are opened. */
interface Opening {
  readonly closers: (() => Promise<void>)[];
  readonly notes: string[];
  /** Lists that were read: one that names itself, or two that name each other, end there. */
  readonly lists: Set<string>;
}

const DEFAULT_MAX_PAGES = 200;

/**
 * Turns what the user named into pages, and serves what is local.
 * @throws IsopticError `bad-url`, `credentials-in-url`, `target-missing`, `no-html`, `not-html`, `unreadable`,
 *   `bad-sitemap`, `empty-list`
 */
export async function openTargets(targets: readonly string[], options: TargetOptions): Promise<Site> {
  const opening: Opening = { closers: [], notes: [], lists: new Set() };
  const { closers, notes } = opening;
  const close = async () => {
    await Promise.all(closers.map((closer) => closer()));
  };
  try {
    const found: Found[] = [];
    for (const target of targets) found.push(...(await pagesOf(target, options, opening)));
    return { pages: withIds(found), notes, close };
  } catch (error) {
    await close();
    throw error;
  }
}

async function pagesOf(target: string, options: TargetOptions, opening: Opening): Promise<Found[]> {
  const { closers, notes, lists } = opening;
  if (/\.txt$/i.test(target)) {
    const list = isUrl(target) ? target : resolve(target);
    if (lists.has(list)) {
      notes.push(`${target} is named more than once; it was read once`);
      return [];
    }
    lists.add(list);
    const entries = parseList(await readText(target, options.access));
    if (entries.length === 0) {
      throw new IsopticError(
        'empty-list',
        `${target}: the list names no page.`,
        'Write one URL or path a line.',
      );
    }
    // A list's paths are meant from where the list lies.
    const from = isUrl(target) ? new URL('.', target).href : dirname(resolve(target));
    const resolved = entries.map((entry) => fromList(entry, from, options.baseUrl));
    const found: Found[] = [];
    for (const entry of resolved) found.push(...(await pagesOf(entry, options, opening)));
    return found;
  }
  if (/\.xml(\.gz)?$/i.test(target)) {
    const { readSitemap } = await import('./sitemap.js');
    const urls = await readSitemap(target, notes, options.access);
    return urls.map((url) => urlPage(rebased(parseUrl(url), options.baseUrl)));
  }
  if (isUrl(target) || options.baseUrl !== undefined) {
    const url = isUrl(target) ? rebased(parseUrl(target), options.baseUrl) : new URL(target, options.baseUrl);
    return (await followed(url.href, options, notes)).map((href) => urlPage(new URL(href)));
  }
  const local = await openLocal(target, options);
  const { origin, pages } = local;
  closers.push(() => local.close());
  if (local.note !== undefined) notes.push(local.note);
  if ((options.follow ?? 0) === 0) return pages.map((page) => ({ ...page, path: page.source, host: null }));
  const reached = await Promise.all(pages.map((page) => followed(page.url, options, notes)));
  return [...new Set(reached.flat())].map((url) => {
    const path = decodeURI(url.slice(origin.length + 1));
    return { path, source: path === '' ? 'index.html' : path, url, host: null };
  });
}

async function followed(url: string, options: TargetOptions, notes: string[]): Promise<string[]> {
  const { follow = 0, maxPages = DEFAULT_MAX_PAGES, robots = true, access = NO_ACCESS } = options;
  if (follow === 0) return [url];
  const { followLinks } = await import('./follow.js');
  return followLinks(url, { depth: follow, maxPages, robots, access }, notes);
}

function fromList(entry: string, from: string, baseUrl: string | undefined): string {
  if (isUrl(entry)) return entry;
  if (baseUrl !== undefined) return new URL(entry, baseUrl).href;
  return isUrl(from) ? new URL(entry, from).href : resolve(from, entry);
}

/** The same path and query at another origin. */
function rebased(url: URL, baseUrl: string | undefined): URL {
  return baseUrl === undefined ? url : new URL(url.pathname + url.search, baseUrl);
}

function urlPage(url: URL): Found {
  return { path: url.pathname + url.search, source: url.href, url: url.href, host: url.host };
}

/** Ids are made of paths; where the pages are of several hosts, of the hosts as well. */
function withIds(found: readonly Found[]): SitePage[] {
  const ids = new PageIds();
  const hosts = new Set(found.map((page) => page.host).filter((host) => host !== null));
  const seen = new Set<string>();
  const pages: SitePage[] = [];
  for (const { path, source, url, host } of withFolders(found)) {
    if (seen.has(url)) continue;
    seen.add(url);
    pages.push({ id: ids.idFor(hosts.size > 1 && host !== null ? `${host}${path}` : path), source, url });
  }
  return pages;
}

/** Files of the same name in several folders are told apart by as much of their folders as that takes. */
function withFolders(found: readonly Found[]): Found[] {
  return found.map((page) => {
    const { file, source } = page;
    const alike = found.filter((other) => other.source === source && other.file !== file);
    if (file === undefined || alike.length === 0) return page;
    const parts = file.split(sep);
    let depth = source.split('/').length;
    const told = () => parts.slice(-depth).join('/');
    const isShared = () => alike.some((other) => other.file?.split(sep).slice(-depth).join('/') === told());
    while (depth < parts.length && isShared()) depth++;
    return { ...page, source: told(), path: told() };
  });
}

/** @throws IsopticError `bad-url`, `credentials-in-url` */
export function parseUrl(target: string): URL {
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
