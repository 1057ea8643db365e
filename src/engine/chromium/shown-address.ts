import { withoutQuery } from '../../core/delivery/urls.js';

/** An address without the page's own origin, and without its query, which may carry tokens. */
export function shownAddress(url: string, origin: string): string {
  const bare = withoutQuery(url);
  return bare.startsWith(`${origin}/`) ? bare.slice(origin.length + 1) || 'index.html' : bare;
}
