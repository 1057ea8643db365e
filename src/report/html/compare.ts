import { readFile } from 'node:fs/promises';
import { packageFile } from '../../package-file.js';
import type { Comparison } from '../../run/compare/record.js';
import { documentOf } from './document.js';

/** What differs, as one HTML text whose pictures lie beside it: no network. */
export async function compareReport(comparison: Comparison): Promise<string> {
  const [base, own, script] = await Promise.all([
    readFile(packageFile('dist/report/report.css'), 'utf8'),
    readFile(packageFile('dist/report/compare.css'), 'utf8'),
    readFile(packageFile('dist/report/compare.js'), 'utf8'),
  ]);
  return documentOf({
    style: base + own,
    script,
    data: comparison,
    unread: 'The differences stand in compare.json.',
  });
}
