import type { Delivery } from '../delivery/delivery.js';
import type { Rect } from '../geometry/rect.js';
import type { NodeIndex, SnapshotView } from '../layout/view.js';
import type { Device } from '../profile/profile.js';

/** Most harmful first. */
export const SEVERITIES = ['error', 'warning', 'notice'] as const;
export type Severity = (typeof SEVERITIES)[number];

/** The most harmful of some severities; undefined where there are none. */
export function gravest(all: readonly Severity[]): Severity | undefined {
  return SEVERITIES.find((severity) => all.includes(severity));
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
  /** The boxes that something runs out of. CSS px of the page. */
  readonly homes?: readonly Rect[];
  /** What else takes part in it: what lies over, or beside. */
  readonly partners?: readonly NodeIndex[];
  /** What is the same on every render that shows this defect; sightings with equal keys are one finding. */
  readonly key: string;
  readonly rect: Rect;
  readonly by: Measure;
  /** One plain sentence about the element at fault on this render; the worst render's is the finding's. */
  readonly message: string;
  /** What is to be listed below the message, each once. */
  readonly details?: readonly string[];
  readonly shows?: Shows;
  /** It shows while the page scrolls only: something passes over what stays on the screen, or is seen through it. */
  readonly passing?: 'over' | 'through';
  /** So little that it may be meant: where it holds at every width it is a notice. */
  readonly mild?: boolean;
  /** Where this sighting weighs less than the rule's own severity. */
  readonly severity?: Severity;
}

/** How a sighting is to be pictured, where its element and its place at load don't say it. Rectangles in CSS px of the page. */
export interface Shows {
  /** How far the page is scrolled where the defect shows. */
  readonly scrolled?: number;
  /** The element at fault, where it then is. */
  readonly fault?: Rect;
  /** What of the others is lost. */
  readonly lost?: readonly Rect[];
}

/** How far, along an axis, in CSS px. Null where a defect has no extent. */
export type Measure = { readonly axis: 'x' | 'y'; readonly px: number } | null;
