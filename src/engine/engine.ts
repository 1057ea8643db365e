import type { FontSetName } from '../core/fonts/font-sets.js';
import type { Capabilities } from './capabilities.js';
import type { PageJob } from './job.js';
import type { PageSession } from './page-session.js';

/** A kind of browser that Isoptic can drive. */
export interface Engine {
  readonly name: string;
  readonly capabilities: Capabilities;
  /**
   * The program that would be started, and how it was found, in words for the user.
   * @throws IsopticError `no-browser`, exit status 4
   */
  find(executable: string | undefined): Promise<{ readonly executable: string; readonly origin: string }>;
  /** @throws IsopticError exit status 4 when the browser is not there or does not start */
  launch(options: LaunchOptions): Promise<BrowserSession>;
}

export interface LaunchOptions {
  /** Path to the browser's program, where the user named one. */
  readonly executable?: string | undefined;
  /** Which fonts the browser has: a platform's set, or the machine's own. */
  readonly fonts: FontSetName | 'host';
  /** How much larger than usual is the type that pages start from, as a desktop's setting has it; 1 is usual. */
  readonly textScale: number;
  /**
   * `free`: frames when something waits for them, as fast as the machine makes them, for pages that are given one size after
   * another. Else as a screen shows them.
   */
  readonly frames?: 'screen' | 'free';
  /** Called when the browser has been asked to start: while it does, there is time to load what is needed next. */
  readonly onAsked?: () => void;
  readonly log: EngineLog;
}

export type EngineLog = (message: string, facts?: Record<string, unknown>) => void;

/** One running browser. */
export interface BrowserSession {
  readonly engine: Pick<Engine, 'name' | 'capabilities'>;
  /** The browser's own version number. */
  readonly version: string;
  /** False once the browser is gone, whoever ended it. */
  readonly alive: boolean;
  /**
   * Opens a page in a context of its own, with everything of its device in force before its first request, and waits for its
   * load event, within a bound.
   * @throws PageNotOpened for what the page or its address does; BrowserGone when the browser went away
   */
  open(job: PageJob): Promise<PageSession>;
  close(): Promise<void>;
}
