import type { Browser, CDPSession } from 'puppeteer-core';
import type { BrowserSession, Engine } from '../engine.js';
import { BrowserGone } from '../failures.js';
import type { PageJob } from '../job.js';
import { openPage } from '../open-page.js';
import type { PageSession } from '../page-session.js';
import { ChromiumPage } from './chromium-page.js';
import { explained } from './explained.js';
import { FramePump } from './frame-pump.js';

const CLOSE_MS = 5_000;

/** A browser that runs, and the tabs that are open in it. */
export class ChromiumSession implements BrowserSession {
  readonly version: string;
  private gone = false;
  /** The pages that are open, to be told when the browser goes away. */
  private readonly pages = new Set<ChromiumPage>();
  private readonly waiting = new Set<(error: Error) => void>();

  constructor(
    readonly engine: Engine,
    private readonly browser: Browser,
    product: string,
    private readonly control: CDPSession,
    private readonly isAsked: boolean,
  ) {
    this.version = product.replace(/^.*\//, '');
    const onGone = () => {
      if (this.gone) return;
      this.gone = true;
      const error = new BrowserGone('the browser went away');
      for (const reject of this.waiting) reject(error);
      for (const page of this.pages) page.end(error);
    };
    browser.once('disconnected', onGone);
    // A killed browser's children may hold the pipe open, so its end alone does not tell.
    browser.process()?.once('exit', onGone);
    // Pages open no windows of their own here.
    browser.on('targetcreated', (target) => {
      if (target.opener() === undefined) return;
      void target
        .page()
        .then((page) => page?.close())
        .catch(() => undefined);
    });
  }

  get alive(): boolean {
    return !this.gone;
  }

  async open(job: PageJob): Promise<PageSession> {
    if (this.gone) throw new BrowserGone('the browser went away');
    const { session, dispose } = await this.orGone(this.tab());
    const page: ChromiumPage = new ChromiumPage(
      session,
      job.url,
      async () => {
        this.pages.delete(page);
        await dispose();
      },
      this.isAsked ? new FramePump(session) : null,
    );
    this.pages.add(page);
    return openPage(page, job);
  }

  /** An empty tab in a context of its own. */
  private async tab(): Promise<{ session: CDPSession; dispose: () => Promise<void> }> {
    const context = await this.browser.createBrowserContext();
    // A tab that is stuck must not hold up the run; it ends with the browser at the latest.
    const dispose = () => settledWithin(context.close(), CLOSE_MS);
    try {
      const browserContextId = context.id!;
      const [{ targetId }] = await Promise.all([
        this.control.send('Target.createTarget', {
          url: 'about:blank',
          browserContextId,
          enableBeginFrameControl: this.isAsked,
        }),
        this.control.send('Browser.setDownloadBehavior', { behavior: 'deny', browserContextId }),
      ]);
      const { sessionId } = await this.control.send('Target.attachToTarget', { targetId, flatten: true });
      const session = this.control.connection()?.session(sessionId);
      if (!session) throw new BrowserGone('the tab went away');
      return { session, dispose };
    } catch (error) {
      await dispose();
      throw error;
    }
  }

  /** Waits for `promise`; whatever goes wrong because the browser is gone becomes BrowserGone. */
  private async orGone<T>(promise: Promise<T>): Promise<T> {
    let reject!: (error: Error) => void;
    const lost = new Promise<never>((_, no) => (reject = no));
    this.waiting.add(reject);
    try {
      return await Promise.race([promise, lost]);
    } catch (error) {
      throw explained(error);
    } finally {
      this.waiting.delete(reject);
    }
  }

  async close(): Promise<void> {
    const child = this.browser.process();
    await settledWithin(this.browser.close(), CLOSE_MS);
    // The browser leads a process group of its own; what is left of it goes with it.
    if (child?.pid !== undefined) killGroup(child.pid);
  }
}

function killGroup(pid: number): void {
  try {
    if (process.platform === 'win32') process.kill(pid, 'SIGKILL');
    else process.kill(-pid, 'SIGKILL');
  } catch {
    // It has ended already, as it should.
  }
}

async function settledWithin(promise: Promise<unknown>, ms: number): Promise<void> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<void>((resolve) => {
    timer = setTimeout(resolve, ms);
  });
  await Promise.race([promise.catch(() => undefined), late]);
  clearTimeout(timer);
}
