import type { Finding } from '../core/findings/finding.js';
import type { FindingRecord } from './manifest.js';

/** A finding as it is written, before waivers; `seen` comes with the evidence that there is. */
export function findingRecord(finding: Finding, seen: FindingRecord['seen']): FindingRecord {
  return {
    ...finding,
    related: [...finding.related],
    details: [...finding.details],
    pages: [...finding.pages],
    seen,
    ...(finding.spans && { spans: { ...finding.spans } }),
    waived: null,
  };
}
