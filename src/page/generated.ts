/** Letters, digits, an ellipsis; signs of icon fonts (Unicode's private use areas) and ornaments say nothing to read. */
const READABLE = /[\p{L}\p{N}…]/u;

/** Whether a pseudo-element's `content` holds something to read: strings, attributes, counters. */
export function isReadable(content: string): boolean {
  return /\b(attr|counters?)\(/.test(content) || READABLE.test(content.replace(/[a-z-]+\([^)]*\)/gi, ''));
}

/** The sign that a pseudo-element's `content` is, an arrow or a quotation mark, if it is that and nothing else; '' otherwise. */
export function signIn(content: string): string {
  return isReadable(content) ? '' : (/^"([^"]*\S[^"]*)"/.exec(content)?.[1] ?? '').trim();
}
