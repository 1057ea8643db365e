import type { Manifest } from '../run/manifest.js';

/** A page as its user named it, and the state of it. */
export function pageName(page: Manifest['pages'][number]): string {
  return page.state === undefined ? page.source : `${page.source}: ${page.state}`;
}

/** The names of all pages by their ids. */
export function pageNames({ pages }: Pick<Manifest, 'pages'>): ReadonlyMap<string, string> {
  return new Map(pages.map((page) => [page.id, pageName(page)]));
}
