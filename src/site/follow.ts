import { Parser } from 'htmlparser2';
import robotsModule from 'robots-parser';
import type { Access } from '../engine/access.js';
import { fetchText } from './read-text.js';

export interface FollowOptions {
  /** How many links away from the start a page may be. */
  readonly depth: number;
  readonly maxPages: number;
  /** Whether robots.txt is obeyed. */
  readonly robots: boolean;
  readonly access: Access;
}

const AGENT = 'isoptic';

/** The package's types describe an ES module; what it ships is the function itself. */
const robotsParser = robotsModule as unknown as (
  url: string,
  text: string,
) => { isAllowed(url: string, agent: string): boolean | undefined };

/**
 * The pages reached from a start by links inside its own origin, nearest first, the start among them. A page comes once,
 * whatever query or fragment a link to it carries. What can't be read is left for the render to report.
 */
export async function followLinks(start: string, options: FollowOptions, notes: string[]): Promise<string[]> {
  const robots = options.robots ? await robotsOf(start, options.access) : null;
  const found = new Map<string, string>([[pageKey(new URL(start)), start]]);
  let level = [start];
  let refused = 0;
  for (let depth = 0; depth < options.depth && level.length > 0; depth++) {
    const next: string[] = [];
    for (const page of level) {
      for (const link of await linksOf(page, start, options.access)) {
        const key = pageKey(link);
        if (found.has(key)) continue;
        if (robots?.isAllowed(link.href, AGENT) === false) {
          refused++;
          continue;
        }
        if (found.size >= options.maxPages) {
          notes.push(`stopped at ${options.maxPages} pages; --max-pages takes more`);
          return [...found.values()];
        }
        found.set(key, link.href);
        next.push(link.href);
      }
    }
    level = next;
  }
  if (refused > 0) notes.push(`${refused} links left out as robots.txt asks; --ignore-robots takes them in`);
  return [...found.values()];
}

function pageKey(url: URL): string {
  return url.origin + url.pathname.replace(/\/index\.html?$/i, '/');
}

async function robotsOf(start: string, access: Access) {
  const url = new URL('/robots.txt', start).href;
  const fetched = await fetchText(url, access, start).catch(() => null);
  return fetched ? robotsParser(url, fetched.text) : null;
}

async function linksOf(page: string, start: string, access: Access): Promise<URL[]> {
  const { origin } = new URL(start);
  const fetched = await fetchText(page, access, start).catch(() => null);
  if (!fetched || !/html/.test(fetched.contentType) || new URL(fetched.url).origin !== origin) return [];
  let base = fetched.url;
  const links: URL[] = [];
  const parser = new Parser({
    onopentag(name, { href, download }) {
      if (href === undefined) return;
      if (name === 'base') base = URL.canParse(href, base) ? new URL(href, base).href : base;
      if ((name !== 'a' && name !== 'area') || download !== undefined || !URL.canParse(href, base)) return;
      const url = new URL(href, base);
      url.hash = '';
      if (url.origin === origin && mayBePage(url)) links.push(url);
    },
  });
  parser.end(fetched.text);
  return links;
}

/** Not what its ending says is a file of another kind. */
function mayBePage(url: URL): boolean {
  const ending = /\.([a-z0-9]{1,5})$/i.exec(url.pathname)?.[1]?.toLowerCase();
  return ending === undefined || /^(html?|xhtml|php|aspx?|jsp|cgi)$/.test(ending);
}
