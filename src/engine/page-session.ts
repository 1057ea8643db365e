import type { LayoutSnapshot } from '../core/layout/snapshot.js';
import type { Rect } from '../core/geometry/rect.js';
import type { Size } from '../core/profile/profile.js';
import type { SignedInState } from './access.js';
import type { RenderFacts } from './job.js';
import type { Probe } from './probe.js';
import type { PictureFormat, Shot, ShotKinds } from './shot.js';
import type { Input, WaitCondition } from './steps.js';

/**
 * How a page is brought to rest. `loaded`: scrolled through once to bring in what is lazy, and back to the top. `changed`:
 * where it is scrolled to, after something was done to it. `resized`: after its window got another size.
 */
export type SettleKind = 'loaded' | 'changed' | 'resized';

export interface CollectRequest {
  /** Selectors whose elements the snapshot is to name (`LayoutSnapshot.matches`). */
  readonly locate: readonly string[];
}

/** `fold`: what the screen shows, at device pixels. `full`: the whole page, at one picture pixel a CSS px unless told. A rectangle: that part of the page, CSS px from its top left, at device pixels. */
export type ShotRequest = 'fold' | 'full' | Rect;

export interface ShotOptions extends Pick<ShotKinds, 'fullPixels'> {
  /** PNG unless told. */
  readonly format?: PictureFormat | undefined;
  /** Picture pixels a CSS px of `fold`; those of the device unless told. */
  readonly foldScale?: number;
}

/** Sheets, in inches; null for what the page itself asks for. */
export type Paper = { readonly width: number; readonly height: number } | null;

export interface FrameOptions {
  /** At most so large, device px. */
  readonly largest: Size;
  /** Of the frames that the browser paints, each so-many-th. */
  readonly every: number;
  /** JPEG quality, 1 to 100. */
  readonly quality: number;
}

/** One frame of what the screen shows, as a JPEG file. */
export interface Frame {
  readonly jpeg: Buffer;
  /** How far the page was scrolled, CSS px. */
  readonly scroll: { readonly x: number; readonly y: number };
}

/**
 * A page that stays open until it is closed: it can be given another size, be used, be read and be pictured again and again.
 * Within it, an element keeps its `uid` from one snapshot to the next. Calls are made one after another.
 *
 * Every call throws `OutOfTime` when the job's time is up or the run is interrupted, `PageFault` when the page crashed, and
 * `BrowserGone` when its browser went away.
 */
export interface PageSession {
  /** Goes to another address and waits for its load event, within a bound. */
  go(url: string): Promise<void>;
  /** Gives the window another size, CSS px; everything else of the device stays. */
  resize(viewport: Size): Promise<void>;
  settle(kind: SettleKind): Promise<void>;
  collect(request: CollectRequest): Promise<LayoutSnapshot>;
  /** @throws IsopticError `no-pictures` where the engine takes none */
  shoot(what: ShotRequest, options?: ShotOptions): Promise<Shot>;
  /** Does what a user of the device would. @throws StepFailed with what stood against it */
  dispatch(input: Input): Promise<void>;
  /** Waits until something holds. @throws StepFailed when it does not come to be */
  until(condition: WaitCondition): Promise<void>;
  /** What the screen shows, frame by frame, until the reader stops. */
  frames(options: FrameOptions): AsyncIterable<Frame>;
  /** The page as it prints, a PDF file. @throws IsopticError `no-print` where the engine does not print */
  print(paper: Paper): Promise<Buffer>;
  /** Experiments in the page. To be closed when they are done. */
  probe(): Probe;
  /** What a sign-in left: the cookies of the context and the storage of the page that it ended on. */
  state(): Promise<SignedInState>;
  /** How it was loaded and what it met so far. @param askPage false where the page does not answer any more */
  facts(askPage?: boolean): Promise<RenderFacts>;
  /** Adds to its notes. */
  note(text: string): void;
  /** Puts an end to scripts that never end. */
  stopScripts(): void;
  close(): Promise<void>;
}
