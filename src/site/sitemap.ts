import { XMLParser } from 'fast-xml-parser';
import { SyntaxValidator } from 'fast-xml-validator';
import { IsopticError, messageOf } from '../core/errors.js';
import { NO_ACCESS, type Access } from '../engine/access.js';
import { readText } from './read-text.js';

interface Entry {
  readonly loc?: unknown;
}
interface Parsed {
  readonly urlset?: { readonly url?: Entry[] };
  readonly sitemapindex?: { readonly sitemap?: Entry[] };
}

/** An index of sitemaps names at most this many here; a larger one is cut, and a note says so. */
const MAX_SITEMAPS = 200;

/**
 * The page URLs of a sitemap (https://www.sitemaps.org/protocol.html): XML, gzip, or an index of others, each read once
 * however often it is named.
 * @param where a URL or a file
 * @throws IsopticError `unreadable`, `bad-sitemap`
 */
export async function readSitemap(
  where: string,
  notes: string[],
  access: Access = NO_ACCESS,
): Promise<string[]> {
  const pages: string[] = [];
  const seen = new Set<string>();
  const waiting = [where];
  for (let next = waiting.shift(); next !== undefined; next = waiting.shift()) {
    if (seen.has(next)) continue;
    if (seen.size >= MAX_SITEMAPS) {
      notes.push(`${where}: stopped after ${MAX_SITEMAPS} sitemaps`);
      break;
    }
    seen.add(next);
    const { urls, sitemaps } = parseSitemap(await readText(next, access), next);
    pages.push(...urls);
    waiting.push(...sitemaps);
  }
  return [...new Set(pages)];
}

/** @throws IsopticError `bad-sitemap` */
export function parseSitemap(text: string, shown: string): { urls: string[]; sitemaps: string[] } {
  try {
    SyntaxValidator.validate(text);
  } catch (error) {
    throw new IsopticError(
      'bad-sitemap',
      `${shown}: not well-formed XML (${messageOf(error)}).`,
      'Give a sitemap.',
    );
  }
  const isArray = (name: string) => name === 'url' || name === 'sitemap';
  const parsed = new XMLParser({ isArray, removeNSPrefix: true, processEntities: true }).parse(
    text,
  ) as Parsed;
  if (parsed.urlset === undefined && parsed.sitemapindex === undefined) {
    throw new IsopticError(
      'bad-sitemap',
      `${shown}: no sitemap; it holds neither urlset nor sitemapindex.`,
      'Give a sitemap.',
    );
  }
  const locations = (entries: Entry[] | undefined) =>
    (entries ?? [])
      .map((entry) => (typeof entry.loc === 'string' ? entry.loc.trim() : ''))
      .filter((loc) => loc !== '');
  return { urls: locations(parsed.urlset?.url), sitemaps: locations(parsed.sitemapindex?.sitemap) };
}
