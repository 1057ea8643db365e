import { stripVTControlCharacters } from 'node:util';
import cliTruncate from 'cli-truncate';
import stringWidth from 'string-width';
import wrapAnsi from 'wrap-ansi';

/**
 * A text in lines that are no wider than there are columns.
 * @param first what stands before the first line; the others begin below what follows it
 */
export function wrapped(first: string, text: string, columns: number): string[] {
  const indent = stringWidth(first);
  // A number stays with its unit.
  const kept = text.replace(/(\d) (?=px\b|×|%)|(?<=×) /g, '$1\u00a0');
  const lines = wrapAnsi(kept, columns - indent, { hard: true }).split('\n');
  return lines.map((line, i) => (i === 0 ? first : ' '.repeat(indent)) + line.replaceAll('\u00a0', ' '));
}

/** A text cut in its middle, so that its ends can still be told apart. */
export function middleCut(text: string, columns: number): string {
  return columns < 1 ? '' : cliTruncate(text, columns, { position: 'middle' });
}

/** Text of a page as a terminal may have it: without escape sequences and other control characters. */
export function plainText(text: string): string {
  return stripVTControlCharacters(text)
    .replace(/\p{Cc}+/gu, ' ')
    .trimEnd();
}
