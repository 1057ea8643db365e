import { ofPage } from '../../sightings/of-page.js';
import { LAID_OUT_TOO_WIDE } from '../overflow/page-overflow.js';
import type { Rule } from '../rule.js';

/** What mobile browsers lay a page out with that does not say what it wants, CSS px. */
const USUAL_WIDTH = 980;

/**
 * The page has no viewport meta tag, and this mobile device is wide enough for it all the same. On a narrower one it is
 * shown shrunk, which is page-overflow. How it measures: docs/rules/viewport-missing.md.
 */
export const viewportMissing: Rule = {
  meta: {
    name: 'viewport-missing',
    family: 'viewport',
    severity: 'notice',
    summary: 'the page has no viewport meta tag',
    toldBy: LAID_OUT_TOO_WIDE,
  },
  check({ view, device }) {
    const { viewportMeta, viewport } = view.snapshot;
    if (!device.mobile || viewportMeta !== null || viewport.width > device.width) return [];
    return [
      ofPage(view, {
        key: 'viewport meta',
        by: null,
        message: `There is no viewport meta tag: mobile devices narrower than ${USUAL_WIDTH} px show the page shrunk.`,
      }),
    ];
  },
};
