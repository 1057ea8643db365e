import { readFile } from 'node:fs/promises';
import { packageFile } from '../package-file.js';

let source: Promise<string> | undefined;

/** The bundle that runs inside pages, read once. */
export function collectorSource(): Promise<string> {
  source ??= readFile(packageFile('dist/page/collector.js'), 'utf8');
  return source;
}
