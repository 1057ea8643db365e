import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { packageFile } from '../../package-file.js';
import { h } from 'preact';
import { renderToString } from 'preact-render-to-string';
import type { Manifest } from '../../run/manifest.js';
import { ReportDocument } from './document.js';

/** The report as one HTML text: style and script inside, pictures by relative path, no network. */
export async function htmlReport(manifest: Manifest): Promise<string> {
  const [style, script] = await Promise.all([
    readFile(packageFile('dist/report/report.css'), 'utf8'),
    readFile(packageFile('dist/report/client.js'), 'utf8'),
  ]);
  const policy = [
    "default-src 'none'",
    "img-src 'self' file: data:",
    `style-src ${hashOf(style)}`,
    `script-src ${hashOf(script)}`,
    "base-uri 'none'",
    "form-action 'none'",
  ].join('; ');
  return `<!doctype html>\n${renderToString(h(ReportDocument, { manifest, style, script, policy }))}\n`;
}

/** Content Security Policy 3, section 2.3.1: a source expression for one inline element. */
function hashOf(text: string): string {
  return `'sha256-${createHash('sha256').update(text).digest('base64')}'`;
}
