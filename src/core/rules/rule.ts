import type { Delivery } from '../delivery/delivery.js';
import type { Rect } from '../geometry/rect.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import type { Device } from '../profile/profile.js';

export const FAMILIES = [
  'overflow',
  'overlap',
  'clipped',
  'viewport',
  'legibility',
  'touch',
  'media',
  'flow',
  'delivery',
] as const;
export type Family = (typeof FAMILIES)[number];

/** What a person sees of the layout itself; the other families are about what it is made of and for. */
export const LAYOUT_FAMILIES: readonly Family[] = ['overflow', 'overlap', 'clipped'];

/** Most harmful first. */
export const SEVERITIES = ['error', 'warning', 'notice'] as const;
export type Severity = (typeof SEVERITIES)[number];

/** The most harmful of some severities; undefined where there are none. */
export function gravest(all: readonly Severity[]): Severity | undefined {
  return SEVERITIES.find((severity) => all.includes(severity));
}

export interface RuleMeta {
  /** Kebab case; also the name of its page in `docs/rules/`. */
  readonly name: string;
  readonly family: Family;
  readonly severity: Severity;
  /** What a person sees, one clause. */
  readonly summary: string;
  /** Counts only where a wider render of the same page is free of it: what holds at every width is meant. */
  readonly needsFreeWidth?: boolean;
  /** The rule and the key of a finding about a page that tells of the same defect, with its harm: then this one is left out. */
  readonly toldBy?: { readonly rule: string; readonly key: string };
}

/** One page on one device, as a rule sees it. */
export interface RenderView {
  /** The page's id, or that of a state of it. */
  readonly page: string;
  readonly device: Device;
  readonly view: SnapshotView;
  /** Status of the answer that carried the document; null where there was none, as for a file. */
  readonly httpStatus: number | null;
  readonly delivery: Delivery;
  /** Selectors of what must be seen in the first screen. */
  readonly essentials: readonly string[];
}

/** One defect on one render. Sightings of the same defect on several renders become one finding. */
export interface Sighting {
  readonly node: NodeIndex;
  /** Further elements of the same defect: repeated siblings. */
  readonly related: readonly NodeIndex[];
  /** The elements whose content shows the defect, where they are others than `node`. */
  readonly affected?: readonly NodeIndex[];
  /** What else takes part in it: what lies over, or beside. */
  readonly partners?: readonly NodeIndex[];
  /** What is the same on every render that shows this defect; sightings with equal keys are one finding. */
  readonly key: string;
  readonly rect: Rect;
  readonly by: Measure;
  /** One plain sentence about the element at fault on this render; the worst render's is the finding's. */
  readonly message: string;
  /** So little that it may be meant: where it holds at every width it is a notice. */
  readonly mild?: boolean;
  /** Where this sighting weighs less than the rule's own severity. */
  readonly severity?: Severity;
}

/** How far, along an axis, in CSS px. Null where a defect has no extent. */
export type Measure = { readonly axis: 'x' | 'y'; readonly px: number } | null;

export interface Rule {
  readonly meta: RuleMeta;
  check(render: RenderView): Sighting[];
}

/** How bad a sighting is: by itself, or else by its rule. */
export function severityOf(rule: Rule, sighting: Sighting): Severity {
  return sighting.severity ?? rule.meta.severity;
}
