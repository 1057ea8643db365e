import type { ExitStatus } from '../core/errors.js';
import { SEVERITIES, type Severity } from '../core/sightings/sighting.js';
import type { FindingRecord, Manifest } from '../run/manifest.js';

export const FAIL_ON = [...SEVERITIES, 'never'] as const;
export type FailOn = (typeof FAIL_ON)[number];

/**
 * The status that a finished run ends with. A page that could not be rendered counts more than what was found.
 * @param right widths that must be right, CSS px: what a search over widths found at others only does not count
 */
export function exitStatusOf(
  manifest: Manifest,
  failOn: FailOn,
  right: readonly (readonly [from: number, to: number])[] = [],
): ExitStatus {
  if (manifest.interrupted) return 130;
  if (manifest.summary.failed > 0 || manifest.sweep?.some(({ error }) => error !== null) === true) return 3;
  if (failOn === 'never') return 0;
  const counted: readonly Severity[] = SEVERITIES.slice(0, SEVERITIES.indexOf(failOn) + 1);
  const isWithin = ({ spans }: FindingRecord) =>
    right.length === 0 ||
    !spans ||
    Object.values(spans)
      .flat()
      .some(([from, to]) => right.some(([first, last]) => from <= last && to >= first));
  return manifest.findings.some(
    (finding) => !finding.waived && counted.includes(finding.severity) && isWithin(finding),
  )
    ? 1
    : 0;
}
