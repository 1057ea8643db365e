import type { FoundQuery } from '../css/found-query.js';
import { spansWhereHeld } from '../css/media-spans.js';
import { conditionOf, type MediaEnvironment } from '../css/media-query.js';
import { beginsOf, type Span } from '../geometry/span.js';

/** The widths of a range, CSS px, at which some media query of a page begins to hold or not to: where a search begins. */
export function knownBegins(
  queries: readonly FoundQuery[],
  environment: MediaEnvironment,
  range: Span,
): number[] {
  const begins = queries
    .filter(({ kind }) => kind !== 'container')
    .flatMap(({ kind, text }) => (kind === 'sizes' ? conditionsOfSizes(text) : [text]))
    .map(conditionOf)
    .flatMap((condition) =>
      condition ? beginsOf(spansWhereHeld(condition, environment, range), range) : [],
    );
  return [...new Set(begins)].sort((a, b) => a - b);
}

/** A condition in parentheses, which may hold others. */
const PART = String.raw`(?:not\s+)?\((?:[^()]|\([^()]*\))*\)`;
/** Conditions before a length, as an entry of `sizes` has them. */
const BEFORE_LENGTH = new RegExp(`^\\s*(${PART}(?:\\s+(?:and|or)\\s+${PART})*)\\s+\\S`, 'i');

/** The media conditions of a `sizes` attribute: `(max-width: 600px) 100vw, 50vw` (HTML, section 4.8.4.2.2). */
export function conditionsOfSizes(text: string): string[] {
  return text.split(/,(?![^(]*\))/).flatMap((entry) => BEFORE_LENGTH.exec(entry)?.[1] ?? []);
}
