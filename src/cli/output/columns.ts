/** Lines longer than this are hard to read, however wide the terminal is. */
const MOST_COLUMNS = 110;
const LEAST_COLUMNS = 40;
/** Where there is no terminal, or one that does not tell its size. */
const PIPED_COLUMNS = 80;

/** How many columns there are to write to. */
export function columnsOf(stream: { readonly columns?: number }): number {
  return Math.min(MOST_COLUMNS, Math.max(LEAST_COLUMNS, stream.columns || PIPED_COLUMNS));
}
