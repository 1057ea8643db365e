import type { SelectorWriter } from '../core/identity/selector.js';
import type { LayoutSnapshot } from '../core/layout/snapshot.js';
import type { Rule } from '../core/rules/rule.js';
import type { RenderView, Sighting } from '../core/sightings/sighting.js';
import type { Probe } from '../engine/probe.js';

/** One defect in the live page, for experiments on it. */
export interface Trial {
  readonly render: RenderView;
  readonly rule: Rule;
  readonly sighting: Sighting;
  readonly probe: Probe;
  readonly writer: SelectorWriter;
  /** Whether the defect is gone from a layout. */
  readonly isGone: (layout: LayoutSnapshot) => boolean;
  /** The page as it would be laid out with a change; counted. */
  readonly layoutWith: Probe['layoutWith'];
  /** Whether there are to be no more experiments on this render. */
  readonly isSpent: () => boolean;
}
