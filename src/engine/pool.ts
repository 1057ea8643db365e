import { setTimeout } from 'node:timers/promises';
import pLimit from 'p-limit';
import { NO_DELIVERY } from '../core/delivery/delivery.js';
import { fontSetOf, type FontSetName } from '../core/fonts/font-sets.js';
import { BrowserGone } from './failures.js';
import { NO_TIMINGS, type RenderJob, type RenderOutcome } from './job.js';
import type { BrowserSession, Engine, EngineLog } from './engine.js';
import { render } from './render.js';

/** How often one render is tried when the browser dies under it: it may be another page that killed it. */
const TRIES = 2;
const TOLD_MS = 300;

export interface PoolOptions {
  readonly executable: string | undefined;
  /** `platform`: one browser for each platform's set of fonts; `host`: one browser with the machine's. */
  readonly fonts: 'platform' | 'host';
  /** Renders at once, over all browsers. */
  readonly concurrency: number;
  readonly log: EngineLog;
}

/**
 * The browsers of one run. Fonts and the size of type belong to a browser process, so there is one for each set in use. A
 * number of renders run at once over all of them, each in a context of its own. A browser that dies is started again, and the
 * renders that died with it are tried once more.
 */
export class BrowserPool {
  private readonly sessions = new Map<string, Promise<BrowserSession>>();
  private readonly limit: ReturnType<typeof pLimit>;
  private closed = false;

  constructor(
    private readonly engine: Engine,
    private readonly options: PoolOptions,
  ) {
    this.limit = pLimit(options.concurrency);
  }

  private typeFor({ device }: Pick<RenderJob, 'device'>): { fonts: FontSetName | 'host'; textScale: number } {
    return {
      fonts: this.options.fonts === 'host' ? 'host' : fontSetOf(device.platform),
      // A phone enlarges type page by page; a desktop's setting is the whole browser's.
      textScale: device.mobile ? 1 : (device.conditions.textScale ?? 1),
    };
  }

  /** The running browser for a device, started when there is none. @throws IsopticError exit status 4 */
  async browserFor(job: Pick<RenderJob, 'device'>): Promise<BrowserSession> {
    const type = this.typeFor(job);
    const key = `${type.fonts} ${type.textScale}`;
    const known = this.sessions.get(key);
    if (known) {
      const running = await known;
      if (running.alive) return running;
      void running.close();
      // Several renders notice a death at once; the first of them starts the next browser.
      if (this.sessions.get(key) === known) this.sessions.delete(key);
    }
    let session = this.sessions.get(key);
    if (!session) {
      const { executable, log } = this.options;
      session = this.engine.launch({ executable, ...type, log });
      this.sessions.set(key, session);
    }
    return session;
  }

  render(job: RenderJob): Promise<RenderOutcome> {
    return this.limit(async () => {
      for (let tries = 1; ; tries++) {
        if (job.signal.aborted || this.closed) {
          return failed('interrupted', 'The run was interrupted before this was rendered.');
        }
        try {
          return await render(await this.browserFor(job), job);
        } catch (error) {
          if (!(error instanceof BrowserGone)) throw error;
          this.options.log('the browser went away', { url: job.url, profile: job.device.name, tries });
          if (tries >= TRIES) {
            return failed('browser-died', `The browser died twice while it rendered ${job.url}.`);
          }
          // A call may fail for the loss a moment before the loss itself is told.
          await setTimeout(TOLD_MS);
        }
      }
    });
  }

  async close(): Promise<void> {
    this.closed = true;
    await Promise.all(
      [...this.sessions.values()].map(async (starting) => {
        const session = await starting.catch(() => null);
        await session?.close();
      }),
    );
  }
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
