/** Letters, digits, an ellipsis; signs of icon fonts (Unicode's private use areas) and ornaments say nothing to read. */
const READABLE = /[\p{L}\p{N}…]/u;

/** Whether a pseudo-element's `content` holds something to read: strings, attributes, counters. */
export function isReadable(content: string): boolean {
  return /\b(attr|counters?)\(/.test(content) || READABLE.test(content.replace(/[a-z-]+\([^)]*\)/gi, ''));
}
