import { readViewportMeta } from '../../layout/viewport-meta.js';
import { ofPage } from '../../sightings/of-page.js';
import type { Rule } from '../rule.js';

/** WCAG 2.2, success criterion 1.4.4: text can be enlarged to twice its size. */
const LEAST_ZOOM = 2;

/** On mobile devices, the viewport meta tag keeps users from enlarging the page. More: docs/rules/zoom-locked.md. */
export const zoomLocked: Rule = {
  meta: {
    name: 'zoom-locked',
    family: 'viewport',
    severity: 'notice',
    summary: 'the viewport meta tag keeps users from enlarging the page',
  },
  check({ view, device }) {
    const { viewportMeta } = view.snapshot;
    if (!device.mobile || viewportMeta === null) return [];
    const { userScalable, maximumScale } = readViewportMeta(viewportMeta);
    const isCapped = maximumScale !== null && maximumScale >= 0 && maximumScale < LEAST_ZOOM;
    if (userScalable && !isCapped) return [];
    const why = userScalable ? `maximum-scale=${maximumScale}` : 'user-scalable=no';
    return [
      ofPage(view, {
        key: 'zoom',
        by: null,
        message: `The viewport meta tag says ${why}, so text can not be enlarged to twice its size.`,
      }),
    ];
  },
};
