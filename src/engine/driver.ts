import type { Declaration } from '../core/cause/cause.js';
import type { LayoutSnapshot } from '../core/layout/snapshot.js';
import type { Delivery } from '../core/delivery/delivery.js';
import type { Device } from '../core/profile/profile.js';
import type { Collected } from '../page/collect.js';
import type { WrittenSheet } from '../page/handed-sheets.js';
import type { PageApi } from '../page/main.js';
import type { Cookie } from './access.js';
import type { Capabilities } from './capabilities.js';
import type { PageJob, RenderFault } from './job.js';
import type { PictureFormat } from './shot.js';
import type { Frame, FrameOptions, Paper } from './page-session.js';
import type { Generated } from './probe.js';

/**
 * What is a browser's own about one page: all that an engine has to bring. Everything else about pages (when they are at
 * rest, what a step waits for, in which order a render goes) is the same for all engines and stands on this.
 *
 * Calls may throw `WorldLost` when the page went elsewhere meanwhile. None needs a time limit of its own.
 */
export interface PageDriver {
  readonly capabilities: Capabilities;
  readonly network: NetworkLog;
  /** How many dialogs were answered. They are answered as they open: a page can't stop a run by asking something. */
  readonly dialogs: number;
  /** Tells once that the page is gone: its tab crashed (`PageFault`), or the browser went away (`BrowserGone`). */
  onEnd(listener: (error: Error) => void): void;
  /** What an error that a call failed with means: `BrowserGone` where it says that the browser or its tab is not there. */
  explained(error: unknown): Error;
  /** Puts everything of the job in force on an empty page, before its first request. */
  begin(job: PageJob): Promise<void>;
  navigate(url: string): Promise<Navigation>;
  /** Gives up what has not come yet; the page goes on with what is there. */
  stopLoading(): Promise<void>;
  /** Calls a function of the page's bundle in a world that the page's scripts don't see. */
  call<Name extends keyof PageApi>(
    name: Name,
    ...args: Parameters<PageApi[Name]>
  ): Promise<Awaited<ReturnType<PageApi[Name]>>>;
  /** The snapshot with what the page itself can't tell: generated content, closed shadow roots. */
  completed(collected: Collected): Promise<LayoutSnapshot>;
  /** Runs a user's script in the page's own world. @returns why it failed; null when it ran */
  runScript(script: string): Promise<string | null>;
  /** The size, screen and orientation of a device, the rest as it is. */
  resize(device: Device): Promise<void>;
  /** Shows the page enlarged (over 1) or shrunk (under 1), as far as it allows. */
  scaleTo(factor: number): Promise<void>;
  press(key: string): Promise<void>;
  type(text: string): Promise<void>;
  /** CSS px of the page's viewport. */
  pointTo(point: Point): Promise<void>;
  clickAt(point: Point): Promise<void>;
  tapAt(point: Point): Promise<void>;
  /** What the screen shows, at device pixels, or an area. */
  picture(area: PictureArea | null, format: PictureFormat): Promise<Buffer>;
  frames(options: FrameOptions, signal: AbortSignal): AsyncIterable<Frame>;
  /** A PDF file. */
  printed(paper: Paper): Promise<Buffer>;
  /** What the style sheets say of elements; to be closed when it is not needed any more. */
  styles(origin: string): StyleOrigins;
  /** All cookies of the page's context. */
  cookies(): Promise<Cookie[]>;
  /** Puts an end to scripts that never end; they would keep the tab busy while it is closed. */
  stopScripts(): void;
  close(): Promise<void>;
}

export interface Point {
  readonly x: number;
  readonly y: number;
}

export interface PictureArea {
  /** CSS px from the page's top left. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** Picture pixels a CSS px, of what the page has at its device pixel ratio. */
  readonly scale: number;
  /** The screen shows just this. */
  readonly onScreen?: boolean;
}

export interface Navigation {
  /** Null when a document came. */
  readonly fault: RenderFault | null;
  readonly loaded: Promise<void>;
}

/** What is known of a page's requests. */
export interface NetworkLog {
  readonly httpStatus: number | null;
  readonly finalUrl: string | null;
  /**
   * Whether nothing has been under way for `quietMs`. Requests older than `longLivedMs` are not waited for: streams and
   * long polls never end.
   */
  isQuiet(quietMs: number, longLivedMs: number): boolean;
  /** Addresses of what is under way, without queries. */
  pending(): string[];
  /** The document as the server sent it, by its structure. */
  structure(): Promise<string | null>;
  delivery(structure: string | null): Delivery;
}

export interface StyleOrigins {
  /** The author's declaration of a property that is in force on an element; null where there is none. */
  declarationOf(uid: number, property: string, generated: Generated | null): Promise<Declaration | null>;
  /**
   * `file:line` of a rule that is not in force, by its selector.
   * @param sheet the style sheet's address; null for a style element, which has no file of its own
   * @param before how many rules of the same selector stand before it in the sheet
   */
  placeOfSelector(sheet: string | null, selector: string, before: number): Promise<string | null>;
  /** Every style sheet of the page that is not switched off, those of shadow trees and frames among them. */
  texts(): Promise<SheetText[]>;
  /** What is written in the sheets of some addresses; one that did not come is empty, one that is not known is left out. */
  textsOf(addresses: readonly string[]): Promise<WrittenSheet[]>;
  /** The scripts that the page runs. */
  scripts(): Promise<ScriptText[]>;
  close(): Promise<void>;
}

/** A script that the page runs. */
export interface ScriptText {
  readonly text: string;
  /** `file:line` of a line in it, from 0. */
  readonly placeOf: (line: number) => string;
}

/** A style sheet as it was written. */
export interface SheetText {
  readonly css: string;
  /** `file:line` of a place in it, both from 0, in the authored file where a source map leads there; null for what stands in no file. */
  readonly placeOf: (line: number, column: number) => Promise<string | null>;
}
