import type { FindingRecord, Manifest, RenderRecord } from './manifest.js';

/** How much there is of what. */
export function summarise(
  renders: readonly RenderRecord[],
  findings: readonly FindingRecord[],
): Manifest['summary'] {
  const count = (severity: string) =>
    findings.filter((finding) => finding.severity === severity && !finding.waived).length;
  return {
    renders: renders.length,
    failed: renders.filter((render) => render.status === 'failed').length,
    errors: count('error'),
    warnings: count('warning'),
    notices: count('notice'),
    waived: findings.filter((finding) => finding.waived).length,
  };
}
