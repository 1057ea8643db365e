import type { ExitStatus } from '../core/errors.js';
import { SEVERITIES, type Severity } from '../core/sightings/sighting.js';
import type { Manifest } from '../run/manifest.js';

export const FAIL_ON = [...SEVERITIES, 'never'] as const;
export type FailOn = (typeof FAIL_ON)[number];

/** The status that a finished run ends with. A page that could not be rendered counts more than what was found. */
export function exitStatusOf(manifest: Manifest, failOn: FailOn): ExitStatus {
  if (manifest.interrupted) return 130;
  if (manifest.summary.failed > 0) return 3;
  if (failOn === 'never') return 0;
  const counted: readonly Severity[] = SEVERITIES.slice(0, SEVERITIES.indexOf(failOn) + 1);
  return manifest.findings.some((finding) => !finding.waived && counted.includes(finding.severity)) ? 1 : 0;
}
