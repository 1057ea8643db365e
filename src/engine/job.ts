import type { LayoutSnapshot } from '../core/layout/snapshot.js';
import type { Delivery } from '../core/delivery/delivery.js';
import type { Device } from '../core/profile/profile.js';
import type { Access, SignedInState } from './access.js';
import type { Shot, ShotKinds } from './shot.js';
import type { Probe } from './probe.js';
import type { Preparation } from './steps.js';

/** A page to be opened. */
export interface PageJob {
  readonly url: string;
  readonly device: Device;
  readonly access: Access;
  readonly alter: Alterations;
  /** For everything about this page, in milliseconds; Infinity for a page that stays open until it is closed. */
  readonly timeoutMs: number;
  readonly signal: AbortSignal;
}

export interface RenderJob extends PageJob {
  readonly shots: ShotKinds;
  /** Done in this order once the page has loaded. Their marks are what is captured; without one, the page as they leave it. */
  readonly preparations: readonly Preparation[];
  /** Selectors whose elements the snapshot is to name (`LayoutSnapshot.matches`). */
  readonly locate: readonly string[];
  /** Whether what a sign-in leaves behind is wanted back. */
  readonly keepState?: boolean;
  /** Called with each capture while its page is still there, once its pictures are taken. */
  readonly investigate?: (capture: Capture, probe: Probe) => Promise<void>;
}

/** Selectors of what is kept out of the pictures. */
export interface Alterations {
  /** Keeps its place and is not seen. */
  readonly hide: readonly string[];
  /** Painted over in the pictures; the layout is judged as it is. */
  readonly mask: readonly string[];
  /** Takes no place. */
  readonly remove: readonly string[];
}

export const NO_ALTERATIONS: Alterations = { hide: [], mask: [], remove: [] };

export interface RenderFault {
  /** Kebab case, stable: `timeout`, `connection-refused`, `name-not-resolved`, … */
  readonly code: string;
  readonly message: string;
}

export interface RenderTimings {
  loadMs: number;
  settleMs: number;
  collectMs: number;
  analyseMs: number;
  shotMs: number;
  /** Experiments in the page that prove causes. */
  causeMs: number;
}

export const NO_TIMINGS: Readonly<RenderTimings> = {
  loadMs: 0,
  settleMs: 0,
  collectMs: 0,
  analyseMs: 0,
  shotMs: 0,
  causeMs: 0,
};

/** How a page was loaded, and what it met. */
export interface RenderFacts {
  readonly finalUrl: string | null;
  readonly httpStatus: number | null;
  readonly delivery: Delivery;
  readonly timings: RenderTimings;
  /** What the reader should know about how it was rendered: bounds that were hit, dialogs that were answered. */
  readonly notes: readonly string[];
}

export type RenderOutcome = RenderFacts & {
  /** What was captured, one entry a state; of a failed render, what was captured before it failed. */
  readonly captures: readonly Capture[];
  readonly signedIn?: SignedInState;
} & (
    | { readonly status: 'ok' }
    | {
        readonly status: 'failed';
        readonly error: RenderFault;
        /** What the screen showed when a step failed, PNG. */
        readonly picture: Buffer | null;
      }
  );

/** One state of a page: its layout and its pictures. */
export interface Capture {
  /** The state that a preparation marked; null for the page itself. */
  readonly state: string | null;
  readonly snapshot: LayoutSnapshot;
  readonly shots: RawShots;
}

/** Picture files: `fold` at device pixels, `full` as it was asked for. */
export interface RawShots {
  readonly fold: Shot | null;
  readonly full: Shot | null;
}
