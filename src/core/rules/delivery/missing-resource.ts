import type { ResourceFailure } from '../../delivery/delivery.js';
import { count } from '../../geometry/format.js';
import { ofPage } from '../../sightings/of-page.js';
import type { Rule } from '../rule.js';

/** Kinds whose absence a person sees, in words. */
const SEEN: Readonly<Record<string, string>> = {
  stylesheet: 'style sheet',
  image: 'picture',
  font: 'font',
};

/**
 * Pictures, style sheets or fonts did not come, or the browser refused them as mixed content, so the page is not what its
 * authors meant: one finding a page. Without a style sheet of its own all else is judged on a page that nobody is to see. How
 * it measures and what it leaves alone: docs/rules/missing-resource.md.
 */
export const missingResource: Rule = {
  meta: {
    name: 'missing-resource',
    family: 'delivery',
    severity: 'warning',
    summary: 'pictures, style sheets or fonts of the page did not come',
  },
  check({ delivery, view }) {
    const origin = originOf(view.snapshot.url);
    const missing = delivery.failures.filter(({ kind, url }) => kind in SEEN && !/\/favicon\.ico$/.test(url));
    if (missing.length === 0) return [];
    const isUnstyled = missing.some(({ kind, url }) => kind === 'stylesheet' && originOf(url) === origin);
    const details = [...new Set(missing.map((failure) => detail(failure, origin)))].sort(byKind);
    return [
      {
        ...ofPage(view, { key: 'missing', by: null, message: tell(details) }),
        ...(isUnstyled && { severity: 'error' as const }),
        details,
      },
    ];
  },
  tell,
};

/** @param details each beginning with what it is */
function tell(details: readonly string[]): string {
  const counts = Object.values(SEEN).flatMap((what) => {
    const n = details.filter((text) => text.startsWith(`${what} `)).length;
    return n === 0 ? [] : [count(n, what)];
  });
  const all = counts.length > 1 ? `${counts.slice(0, -1).join(', ')} and ${counts.at(-1)!}` : counts[0]!;
  return `${all} did not come, so the page is judged without ${details.length === 1 ? 'it' : 'them'}.`;
}

/** The same file from another port is the same: of the page's own site the path tells it. */
function detail({ kind, url, status, reason }: ResourceFailure, origin: string): string {
  const place = originOf(url) === origin ? url.slice(origin.length) : url;
  return `${SEEN[kind]!} ${place}: ${status ?? reason}`;
}

function originOf(url: string): string {
  return /^[a-z]+:\/\/[^/]+/i.exec(url)?.[0] ?? '';
}

function byKind(a: string, b: string): number {
  const kinds = Object.values(SEEN);
  const place = (text: string) => kinds.findIndex((what) => text.startsWith(what));
  return place(a) - place(b) || a.localeCompare(b, 'en');
}
