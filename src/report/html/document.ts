import { createHash } from 'node:crypto';

interface DocumentParts {
  readonly style: string;
  readonly script: string;
  readonly data: unknown;
  /** Where a reader finds it whose browser runs no scripts, as HTML of ours. */
  readonly unread: string;
}

/** One HTML text that draws itself from its data: style and script inside, pictures by relative path or as data, no network. */
export function documentOf({ style, script, data, unread }: DocumentParts): string {
  const policy = [
    "default-src 'none'",
    "img-src 'self' file: data:",
    `style-src ${hashOf(style)}`,
    `script-src ${hashOf(script)}`,
    "base-uri 'none'",
    "form-action 'none'",
  ].join('; ');
  return [
    '<!doctype html>',
    '<html lang="en">',
    '<meta charset="utf-8">',
    `<meta http-equiv="Content-Security-Policy" content="${policy}">`,
    '<meta name="viewport" content="width=device-width, initial-scale=1">',
    '<meta name="color-scheme" content="light dark">',
    '<title>Isoptic</title>',
    `<style>${style}</style>`,
    '<body>',
    `<noscript><p>This report is drawn by its own script, which this browser was told not to run. ${unread}</p></noscript>`,
    '<div id="report"></div>',
    `<script type="application/json" id="data">${inScript(JSON.stringify(data))}</script>`,
    `<script type="module">${script}</script>`,
    '',
  ].join('\n');
}

/**
 * JSON as it can stand in a script element: what would end the element or open a comment in it is written as an escape
 * (HTML, "Restrictions for contents of script elements").
 */
function inScript(json: string): string {
  return json.replaceAll('<', '\\u003c');
}

/** Content Security Policy 3, section 2.3.1: a source expression for one inline element. */
function hashOf(text: string): string {
  return `'sha256-${createHash('sha256').update(text).digest('base64')}'`;
}
