import { setTimeout } from 'node:timers/promises';
import pLimit from 'p-limit';
import { NO_DELIVERY } from '../core/delivery/delivery.js';
import { IsopticError } from '../core/errors.js';
import { fontSetOf } from '../core/fonts/font-sets.js';
import type { Device } from '../core/profile/profile.js';
import { BrowserGone } from './failures.js';
import { NO_TIMINGS, type RenderJob, type RenderOutcome } from './job.js';
import type { BrowserSession, Engine, EngineLog, LaunchOptions } from './engine.js';
import { render } from './render.js';

/** How often one render is tried when the browser dies under it: it may be another page that killed it. */
const TRIES = 2;
const TOLD_MS = 300;
/** A machine that is short of something for a moment may have it again then. */
const AGAIN_MS = 500;

export interface PoolOptions {
  readonly executable: string | undefined;
  /** `platform`: browsers with each platform's set of fonts; `host`: with the machine's. */
  readonly fonts: 'platform' | 'host';
  /** Renders at once, over all browsers. */
  readonly concurrency: number;
  /** Browsers to spread the work over, where there are no more kinds of them than that. */
  readonly browsers: number;
  readonly log: EngineLog;
}

/** Fonts and the size of type belong to a browser process. */
type BrowserKind = Pick<LaunchOptions, 'fonts' | 'textScale'>;

/** The kind of browser that a device is shown in. */
export function browserKindFor(
  { platform, mobile, conditions }: Device,
  fonts: PoolOptions['fonts'],
): BrowserKind {
  return {
    fonts: fonts === 'host' ? 'host' : fontSetOf(platform),
    // A phone enlarges type page by page; a desktop's setting is the whole browser's.
    textScale: mobile ? 1 : (conditions.textScale ?? 1),
  };
}

interface Running {
  readonly kind: string;
  readonly session: Promise<BrowserSession>;
  /** Resolves when it was asked to start, or could not be. */
  readonly asked: Promise<void>;
  /** Renders under way in it. */
  busy: number;
}

/**
 * The browsers of one run: one at least for each kind that its devices need, and more where there are few kinds, so that every
 * core has work. A number of renders run at once over all of them, each in a context of its own. A browser that dies, or does
 * not start, is started again, and the renders that died with it are tried once more.
 */
export class BrowserPool {
  private readonly running: Running[] = [];
  private readonly limit: ReturnType<typeof pLimit>;
  private closing: Promise<void> | null = null;

  constructor(
    private readonly engine: Engine,
    private readonly options: PoolOptions,
  ) {
    this.limit = pLimit(options.concurrency);
  }

  private kindFor({ device }: Pick<RenderJob, 'device'>): BrowserKind {
    return browserKindFor(device, this.options.fonts);
  }

  /**
   * Starts the browsers that devices need first, so that they start while other things are made ready, then those that they need
   * later: a render is not to wait for its browser.
   * @returns when the first ones were asked to start
   */
  async warmUp(devices: readonly Device[]): Promise<void> {
    const { browsers } = this.options;
    const kinds = new Map(
      devices.map((device) => [nameOf(this.kindFor({ device })), this.kindFor({ device })]),
    );
    const first = [...kinds.values()].slice(0, browsers);
    while (first.length > 0 && this.running.length < browsers) {
      for (const kind of first) if (this.running.length < browsers) this.start(kind);
    }
    void this.startLater([...kinds.values()].slice(browsers));
    await Promise.all(this.running.map(({ asked }) => asked));
  }

  /** Starts browsers of more kinds, each after the one before it is there. */
  private async startLater(kinds: readonly BrowserKind[]): Promise<void> {
    for (const kind of kinds) {
      await this.running.at(-1)?.session.catch(() => undefined);
      if (this.closing) return;
      if (!this.running.some((each) => each.kind === nameOf(kind))) this.start(kind);
    }
  }

  /** The version of the browser that a device is rendered in. @throws IsopticError exit status 4 */
  async versionFor(device: Device): Promise<string> {
    return (await this.leastBusy(this.kindFor({ device })).session).version;
  }

  render(job: RenderJob): Promise<RenderOutcome> {
    return this.limit(async () => {
      for (let tries = 1; ; tries++) {
        if (job.signal.aborted || this.closing) {
          return failed('interrupted', 'The run was interrupted before this was rendered.');
        }
        const browser = this.leastBusy(this.kindFor(job));
        browser.busy++;
        try {
          return await render(await browser.session, job);
        } catch (error) {
          if (!(error instanceof BrowserGone)) throw error;
          this.options.log('the browser went away', { url: job.url, profile: job.device.name, tries });
          await this.forget(browser);
          if (tries >= TRIES) {
            return failed('browser-died', `The browser died twice while it rendered ${job.url}.`);
          }
        } finally {
          browser.busy--;
        }
      }
    });
  }

  /** The running browser of a kind that has least to do; another one where all have work and there may be more. */
  private leastBusy(kind: BrowserKind): Running {
    const name = nameOf(kind);
    const [best] = this.running.filter((each) => each.kind === name).sort((a, b) => a.busy - b.busy);
    if (best && (best.busy === 0 || this.running.length >= this.options.browsers)) return best;
    return this.start(kind);
  }

  private start(kind: BrowserKind): Running {
    const { executable, log } = this.options;
    let onAsked!: () => void;
    const asked = new Promise<void>((resolve) => (onAsked = resolve));
    const launch = () => this.engine.launch({ executable, ...kind, onAsked, log });
    const session = launch().catch(async (error: unknown) => {
      if (this.closing || !(error instanceof IsopticError) || error.code !== 'browser-start') throw error;
      log('the browser did not start; once more', { error: error.message });
      await setTimeout(AGAIN_MS);
      return launch();
    });
    const started: Running = { kind: nameOf(kind), session, asked, busy: 0 };
    this.running.push(started);
    // One that did not start is none; who waits for it is told.
    session.catch(() => this.remove(started)).finally(onAsked);
    return started;
  }

  /** Several renders notice a death at once; only what is really gone goes. */
  private async forget(browser: Running): Promise<void> {
    const session = await browser.session;
    // A call may fail for the loss a moment before the loss itself is told.
    if (session.alive) await setTimeout(TOLD_MS);
    if (session.alive || !this.remove(browser)) return;
    await session.close();
  }

  private remove(browser: Running): boolean {
    const at = this.running.indexOf(browser);
    if (at >= 0) this.running.splice(at, 1);
    return at >= 0;
  }

  /** Ends the browsers; to be called as often as one likes. */
  close(): Promise<void> {
    this.closing ??= Promise.all(
      this.running.map(async ({ session }) => {
        await (await session.catch(() => null))?.close();
      }),
    ).then(() => undefined);
    return this.closing;
  }
}

function nameOf({ fonts, textScale }: BrowserKind): string {
  return `${fonts} ${textScale}`;
}

/** The outcome of a render that never came to its page. */
export function failed(code: string, message: string): RenderOutcome {
  return {
    status: 'failed',
    error: { code, message },
    picture: null,
    captures: [],
    finalUrl: null,
    httpStatus: null,
    delivery: NO_DELIVERY,
    timings: NO_TIMINGS,
    notes: [],
  };
}
