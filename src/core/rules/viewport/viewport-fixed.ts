import { readViewportMeta } from '../../layout/viewport-meta.js';
import { ofPage } from '../../sightings/of-page.js';
import { LAID_OUT_TOO_WIDE } from '../overflow/page-overflow.js';
import type { Rule } from '../rule.js';

/**
 * On mobile devices, the viewport meta tag asks for a width of its own, so the page is not laid out for the device. Where it
 * is shown shrunk by that, it is page-overflow. How it measures: docs/rules/viewport-fixed.md.
 */
export const viewportFixed: Rule = {
  meta: {
    name: 'viewport-fixed',
    family: 'viewport',
    severity: 'warning',
    summary: 'the viewport meta tag asks for a fixed width',
    toldBy: LAID_OUT_TOO_WIDE,
  },
  check({ view, device }) {
    const { viewportMeta, viewport } = view.snapshot;
    if (!device.mobile || viewportMeta === null || viewport.width > device.width) return [];
    const { width } = readViewportMeta(viewportMeta);
    if (width === null || width < 1 || viewport.width === device.width) return [];
    const shown = `laid out ${viewport.width} px wide and shown at ${Math.round(viewport.scale * 100)} %`;
    return [
      ofPage(view, {
        key: 'viewport width',
        by: { axis: 'x', px: device.width - viewport.width },
        message: `The viewport meta tag says width=${width}: on this device of ${device.width} px the page is ${shown}.`,
      }),
    ];
  },
};
