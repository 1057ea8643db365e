import type { PagePlaces } from '../../core/compare/packed-places.js';
import type { Manifest } from '../../run/manifest.js';

/** What the report's page is given. */
export interface ReportData {
  readonly manifest: Manifest;
  /** By page, where renders can be brought to the same place. */
  readonly places: Readonly<Record<string, PagePlaces>>;
  /** Ids of findings that a run had before; null where none was named. */
  readonly known: readonly string[] | null;
  /** What each rule that found something is about: our own text, as HTML. */
  readonly rules: Readonly<Record<string, string>>;
  /** Data URLs of pictures by their path, where the report holds them itself. */
  readonly pictures: Readonly<Record<string, string>>;
}
