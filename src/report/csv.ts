import { stringify } from 'csv-stringify/sync';
import type { Manifest } from '../run/manifest.js';
import { pageNames } from './page-name.js';

const COLUMNS = [
  'page',
  'profile',
  'width',
  'severity',
  'rule',
  'element',
  'words',
  'px',
  'axis',
  'left',
  'top',
  'box width',
  'box height',
  'message',
  'why',
  'source',
  'waived',
  'finding',
] as const;

/**
 * One row a sighting: a finding on a profile. Lengths are CSS px from the page's top left. No cell is taken for a formula by a
 * spreadsheet.
 */
export function csvReport(manifest: Manifest): string {
  const names = pageNames(manifest);
  const widths = new Map(manifest.profiles.map(({ name, width }) => [name, width]));
  const rows = manifest.findings.flatMap((finding) =>
    finding.seen.map(({ page, profile, rect, by, message = finding.message }) => [
      names.get(page) ?? page,
      profile,
      widths.get(profile) ?? '',
      finding.severity,
      finding.rule,
      finding.selector,
      finding.words,
      by?.px ?? '',
      by?.axis ?? '',
      rect.x,
      rect.y,
      rect.width,
      rect.height,
      [message, ...finding.details].join('\n'),
      finding.cause?.message ?? '',
      finding.cause?.declaration?.source ?? '',
      finding.waived?.reason ?? '',
      finding.id,
    ]),
  );
  return stringify([[...COLUMNS], ...rows], { escape_formulas: true });
}
