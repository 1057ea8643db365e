import pLimit from 'p-limit';
import {
  BrowserGone,
  type BrowserSession,
  type Engine,
  type LaunchOptions,
  type RenderJob,
  type RenderOutcome,
} from './engine.js';

/** How often one render is tried when the browser dies under it: it may be another page that killed it. */
const TRIES = 2;

/**
 * One browser, as many renders at once as there are cores, each in a context of its own. A browser that dies is started
 * again, and the renders that died with it are tried once more.
 */
export class BrowserPool {
  private session: Promise<BrowserSession> | null = null;
  private readonly limit: ReturnType<typeof pLimit>;
  private closed = false;

  constructor(
    private readonly engine: Engine,
    private readonly options: LaunchOptions,
    concurrency: number,
  ) {
    this.limit = pLimit(concurrency);
  }

  get engineName(): string {
    return this.engine.name;
  }

  /** Starts the browser when it is not running. @throws IsopticError exit status 4 */
  async browser(): Promise<BrowserSession> {
    if (this.session) {
      const running = await this.session;
      if (running.alive) return running;
      // Several renders notice a death at once; the first of them starts the next browser.
      if ((await this.session) === running) this.session = null;
    }
    this.session ??= this.engine.launch(this.options);
    return this.session;
  }

  render(job: RenderJob): Promise<RenderOutcome> {
    return this.limit(async () => {
      for (let tries = 1; ; tries++) {
        if (job.signal.aborted || this.closed) {
          return failed('interrupted', 'The run was interrupted before this was rendered.');
        }
        try {
          return await (await this.browser()).render(job);
        } catch (error) {
          if (!(error instanceof BrowserGone)) throw error;
          this.options.log('the browser went away', { url: job.url, profile: job.device.name, tries });
          if (tries >= TRIES) {
            return failed('browser-died', `The browser died twice while it rendered ${job.url}.`);
          }
        }
      }
    });
  }

  async close(): Promise<void> {
    this.closed = true;
    const session = await this.session?.catch(() => null);
    await session?.close();
  }
}

function failed(code: string, message: string): RenderOutcome {
  return {
    status: 'failed',
    error: { code, message },
    finalUrl: null,
    httpStatus: null,
    timings: { loadMs: 0, settleMs: 0, collectMs: 0, analyseMs: 0, shotMs: 0 },
    notes: [],
  };
}
