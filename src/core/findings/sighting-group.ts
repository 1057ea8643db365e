import type { SelectorWriter } from '../identity/selector.js';
import type { Rule } from '../rules/rule.js';
import type { Sighting } from '../sightings/sighting.js';

/** The sightings of one defect, over all renders of a page. */
export interface Group {
  readonly rule: Rule;
  readonly key: string;
  readonly entries: Entry[];
}

export interface Entry {
  readonly page: string;
  readonly profile: string;
  /** The device's, CSS px. */
  readonly width: number;
  readonly sighting: Sighting;
  readonly writer: SelectorWriter;
}
