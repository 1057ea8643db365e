/** The entries of a list of pages: one a line, `#` begins a comment, blank lines count for nothing. */
export function parseList(text: string): string[] {
  return text
    .replace(/^\uFEFF/, '')
    .split(/\r?\n/)
    .map((line) => line.replace(/(^|\s)#.*$/, '').trim())
    .filter((line) => line !== '');
}
