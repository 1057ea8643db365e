import { readFile } from 'node:fs/promises';
import { packageFile } from '../../package-file.js';
import type { CompareData } from '../view/compare-data.js';
import { documentOf } from './document.js';

/** What differs, as one HTML text whose pictures lie beside it: no network. */
export async function compareReport(data: CompareData): Promise<string> {
  const [base, own, script] = await Promise.all([
    readFile(packageFile('dist/report/report.css'), 'utf8'),
    readFile(packageFile('dist/report/compare.css'), 'utf8'),
    readFile(packageFile('dist/report/compare.js'), 'utf8'),
  ]);
  return documentOf({
    style: base + own,
    script,
    data,
    unread: 'The differences stand in compare.json.',
  });
}
