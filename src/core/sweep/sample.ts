import type { Severity } from '../sightings/sighting.js';
import type { ContainerSize } from './container-spans.js';
import type { Trace } from './trace.js';

/** What was seen at one width. */
export interface Sample {
  /** CSS px. */
  readonly width: number;
  /** Layouts of one form have the same (`Trace.form`). */
  form: string;
  /** Null once nothing near it is searched any more. */
  trace: Trace | null;
  /** By the number of a container that some query asks: how large it is; only those that are laid out. */
  readonly containers: ReadonlyMap<number, NonNullable<ContainerSize['size']>>;
  /** By the key of the defect. */
  readonly seen: ReadonlyMap<string, Sight>;
}

/** A defect as it was seen at one width. */
export interface Sight {
  /** How far it goes, CSS px; null where it has no extent. */
  readonly px: number | null;
  readonly severity: Severity;
}

/** Whether two layouts show the same defects. */
export function showsSame({ seen: a }: Sample, { seen: b }: Sample): boolean {
  return a.size === b.size && [...a.keys()].every((key) => b.has(key));
}

/** Whether two layouts are of one form and show the same defects. */
export function isAlike(a: Sample, b: Sample): boolean {
  return a.form === b.form && showsSame(a, b);
}
