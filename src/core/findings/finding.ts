import type { Cause } from '../cause/cause.js';
import type { Rect } from '../geometry/rect.js';
import type { Family } from '../rules/rule.js';
import type { Measure, Severity } from '../sightings/sighting.js';

/** One defect, grouped over every profile on which it was seen. */
export interface Finding {
  /** Stable across runs and small edits of the page. */
  readonly id: string;
  readonly rule: string;
  readonly family: Family;
  readonly severity: Severity;
  readonly page: string;
  /** Every page that shows it, where it is a template's. */
  readonly pages: readonly string[];
  /** What is the same wherever this defect shows. */
  readonly key: string;
  /** Matches exactly one element: the culprit, on the profile that shows it worst. */
  readonly selector: string;
  /** The repeated siblings that show the same defect, and the culprit's selectors on other profiles where they differ. */
  readonly related: readonly string[];
  readonly message: string;
  /** What is listed below the message. */
  readonly details: readonly string[];
  /** The first words in the culprit; empty where it has none. */
  readonly words: string;
  readonly cause: Cause | null;
  /** The same element where it is right. */
  readonly right: { readonly page: string; readonly profile: string; readonly rect: Rect } | null;
  readonly seen: readonly Seen[];
  /** By page, the sizes at which it shows, CSS px, both ends included; only where a search over sizes found them. */
  readonly spans?: Readonly<Record<string, [from: number, to: number][]>> | undefined;
}

export interface Seen {
  /** The page, or the state of it. */
  readonly page: string;
  readonly profile: string;
  /** CSS px from the page's top left. */
  readonly rect: Rect;
  readonly by: Measure;
  /** What is said of the finding there, where it is not the finding's own message. */
  readonly message?: string | undefined;
  /** The element at fault, those that lose something by it, and what is lost. */
  readonly fault?: Rect | undefined;
  readonly suffers?: Rect[] | undefined;
  readonly lost?: Rect[] | undefined;
  /** How far the page is scrolled where the defect shows, CSS px; where it is not said, at the place of its element. */
  readonly scrolled?: number | undefined;
}
