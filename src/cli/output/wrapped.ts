import { stripVTControlCharacters } from 'node:util';
import cliTruncate from 'cli-truncate';
import stringWidth from 'string-width';
import wrapAnsi from 'wrap-ansi';

/** Lines longer than this are hard to read, however wide the terminal is. */
const MOST_COLUMNS = 110;
const LEAST_COLUMNS = 40;
/** Where there is no terminal, or one that does not tell its size. */
const PIPED_COLUMNS = 80;

/** How many columns there are to write to. */
export function columnsOf(stream: { readonly columns?: number }): number {
  return Math.min(MOST_COLUMNS, Math.max(LEAST_COLUMNS, stream.columns || PIPED_COLUMNS));
}

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
