import { SEVERITIES, type Severity } from '../../core/sightings/sighting.js';
import type { FindingRecord, Manifest, RenderRecord } from '../../run/manifest.js';

/** The manifest, put in the order in which a reader asks: page by page, what is wrong, where it shows. */
export interface PageModel {
  readonly id: string;
  readonly source: string;
  readonly title: string;
  /** The state of the page that this is; none for the page as it loads. */
  readonly state?: string | undefined;
  readonly findings: readonly FindingRecord[];
  readonly panes: readonly PaneModel[];
}

export interface PaneModel {
  readonly anchor: string;
  readonly profile: Manifest['profiles'][number];
  readonly render: RenderRecord;
  readonly marks: readonly Mark[];
  readonly worst: Severity | null;
}

/** One outline on one picture. */
export interface Mark {
  readonly anchor: string;
  /** The number that stands at the finding in the list. */
  readonly number: number;
  readonly finding: FindingRecord;
  readonly seen: FindingRecord['seen'][number];
}

export function pageModels(manifest: Manifest): PageModel[] {
  // As the lists count: page by page, without what is waived.
  const listed = manifest.pages.flatMap(({ id }) =>
    manifest.findings.filter((finding) => finding.page === id && !finding.waived),
  );
  const numbers = new Map(listed.map((finding, i) => [finding.id, i + 1]));
  return manifest.pages.map((page) => {
    const findings = manifest.findings.filter((finding) => finding.page === page.id && !finding.waived);
    const shown = manifest.findings.filter(
      (finding) => !finding.waived && finding.seen.some((seen) => seen.page === page.id),
    );
    const panes = manifest.profiles.flatMap((profile) => {
      const render = manifest.renders.find(
        (entry) => entry.page === page.id && entry.profile === profile.name,
      );
      if (!render) return [];
      const marks = shown.flatMap((finding) =>
        finding.seen
          .filter((seen) => seen.profile === profile.name && seen.page === page.id)
          .map((seen) => ({
            anchor: markAnchor(finding.id, seen),
            number: numbers.get(finding.id)!,
            finding,
            seen,
          })),
      );
      const worst =
        SEVERITIES.find((severity) => marks.some((mark) => mark.finding.severity === severity)) ?? null;
      return [{ anchor: paneAnchor(page.id, profile.name), profile, render, marks, worst }];
    });
    return { ...page, findings, panes };
  });
}

export function markAnchor(finding: string, seen: Pick<Mark['seen'], 'page' | 'profile'>): string {
  return `mark-${finding}-${anchorPart(seen.page)}-${anchorPart(seen.profile)}`;
}

export function paneAnchor(page: string, profile: string): string {
  return `pane-${page}-${anchorPart(profile)}`;
}

export function pageAnchor(page: string): string {
  return `page-${page}`;
}

function anchorPart(name: string): string {
  return name.replace(/[^A-Za-z0-9-]/g, '_');
}
