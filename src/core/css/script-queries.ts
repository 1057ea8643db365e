import type { SheetQuery } from './sheet-queries.js';

/** A media query that a script asks for in so many words. */
export type ScriptQuery = Pick<SheetQuery, 'text' | 'line'>;

/** `matchMedia('(min-width: 40em)')`, with any quotation marks, and nothing put together. */
const ASKED = /\bmatchMedia\s*\(\s*(["'`])((?:(?!\1|\\|\$\{).)+)\1/g;

/** The media queries that a script asks for by `matchMedia`, where they stand in it as text. */
export function queriesInScript(source: string): ScriptQuery[] {
  return [...source.matchAll(ASKED)].map((match) => ({
    text: match[2]!.trim().replace(/\s+/g, ' '),
    line: source.slice(0, match.index).split('\n').length - 1,
  }));
}
