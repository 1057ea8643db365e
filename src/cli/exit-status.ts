import type { ExitStatus } from '../core/errors.js';
import { SEVERITIES, type Severity } from '../core/sightings/sighting.js';
import type { FindingRecord, Manifest } from '../run/manifest.js';

export const FAIL_ON = [...SEVERITIES, 'never'] as const;
export type FailOn = (typeof FAIL_ON)[number];

/**
 * The status that a finished run ends with. A page that could not be rendered counts more than what was found.
 * @param right of a page, widths that must be right, CSS px, none for all: what a search over widths found at others only does not count
 */
export function exitStatusOf(
  manifest: Manifest,
  failOn: FailOn,
  right: (page: string) => readonly (readonly [from: number, to: number])[] = () => [],
): ExitStatus {
  if (manifest.interrupted) return 130;
  if (manifest.summary.failed > 0 || manifest.sweep?.some(({ error }) => error !== null) === true) return 3;
  if (failOn === 'never') return 0;
  const counted: readonly Severity[] = SEVERITIES.slice(0, SEVERITIES.indexOf(failOn) + 1);
  const isWithin = ({ spans }: FindingRecord) =>
    !spans ||
    Object.entries(spans).some(([page, own]) => {
      const needed = right(page);
      return (
        needed.length === 0 ||
        own.some(([from, to]) => needed.some(([first, last]) => from <= last && to >= first))
      );
    });
  return manifest.findings.some(
    (finding) => !finding.waived && counted.includes(finding.severity) && isWithin(finding),
  )
    ? 1
    : 0;
}
