import type { ResourceFailure } from '../../delivery/delivery.js';
import type { Rule } from '../rule.js';

/** Kinds whose absence a person sees. */
const SEEN = ['stylesheet', 'image', 'font'];

/**
 * A picture, stylesheet or font did not come, or the browser refused it as mixed content, so the page is not what its
 * authors meant. How it measures and what it leaves alone: docs/rules/missing-resource.md.
 */
export const missingResource: Rule = {
  meta: {
    name: 'missing-resource',
    family: 'delivery',
    severity: 'warning',
    summary: 'a picture, stylesheet or font of the page did not come',
  },
  check({ delivery, view }) {
    const once = new Map<string, ResourceFailure>();
    for (const failure of delivery.failures) {
      if (SEEN.includes(failure.kind) && !/\/favicon\.ico$/.test(failure.url)) once.set(failure.url, failure);
    }
    const { width, height } = view.snapshot.viewport;
    return [...once.values()].map((failure) => ({
      node: view.root,
      related: [],
      key: `${failure.kind} ${pathOf(failure.url)}`,
      rect: { x: 0, y: 0, width, height },
      by: null,
      message: `The ${failure.kind} ${failure.url} did not come: ${failure.reason}.`,
    }));
  },
};

/** The same file from another port or host is the same defect. */
function pathOf(url: string): string {
  return url.replace(/^[a-z]+:\/\/[^/]+/i, '');
}
