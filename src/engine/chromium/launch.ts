import type { Browser, CDPSession } from 'puppeteer-core';
import { IsopticError, messageOf } from '../../core/errors.js';
import { fontconfigFile } from '../fonts/fontconfig.js';
import type { BrowserSession, Engine, LaunchOptions } from '../engine.js';
import { BrowserGone } from '../failures.js';
import type { PageJob } from '../job.js';
import { openPage } from '../open-page.js';
import type { PageSession } from '../page-session.js';
import { findBrowser } from './find-browser.js';
import { FramePump } from './frame-pump.js';
import { explained } from './explained.js';
import { CHROMIUM_CAPABILITIES, ChromiumPage } from './chromium-page.js';

const LAUNCH_MS = 30_000;
const CLOSE_MS = 5_000;

const ARGS = [
  '--disable-quic',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--no-first-run',
  // The same pixels on every machine and in every run.
  '--disable-gpu',
  '--disable-lcd-text',
  '--font-render-hinting=none',
  '--force-color-profile=srgb',
  '--disable-partial-raster',
];

const FREE_FRAMES = ['--disable-gpu-vsync', '--disable-frame-rate-limit'];

/** Frames come when they are asked for: by `FramePump`. Only the browser without a window can do that. */
const ASKED_FRAMES = [
  '--enable-begin-frame-control',
  '--run-all-compositor-stages-before-draw',
  '--disable-new-content-rendering-timeout',
];

/** The sizes that browsers start from, in CSS px. */
const STANDARD_SIZE = 16;
const FIXED_SIZE = 13;

/**
 * What the protocol can't set for good. A headless browser has no mouse; a desktop has one: hover (2) and a fine pointer
 * (4), which touch emulation overrides. Font sizes set by the protocol are lost when the browser next hands a page its
 * preferences.
 */
function blinkSettings(textScale: number): string {
  const settings = {
    primaryHoverType: 2,
    availableHoverTypes: 2,
    primaryPointerType: 4,
    availablePointerTypes: 4,
    defaultFontSize: Math.round(STANDARD_SIZE * textScale),
    defaultFixedFontSize: Math.round(FIXED_SIZE * textScale),
  };
  const pairs = Object.entries(settings).map(([name, value]) => `${name}=${value}`);
  return `--blink-settings=${pairs.join(',')}`;
}

export const chromium: Engine = {
  name: 'chromium',
  capabilities: CHROMIUM_CAPABILITIES,
  find: findBrowser,
  async launch({
    executable,
    fonts,
    textScale,
    frames = 'screen',
    log,
  }: LaunchOptions): Promise<BrowserSession> {
    const found = await findBrowser(executable);
    log('starting the browser', { executable: found.executable, origin: found.origin });
    // Only Linux's browsers take their fonts from fontconfig.
    const fontEnv: Record<string, string> =
      fonts === 'host' || process.platform !== 'linux'
        ? {}
        : { FONTCONFIG_FILE: await fontconfigFile(fonts) };
    // What needs no browser, help among it, need not wait until its driver is loaded.
    const { default: puppeteer } = await import('puppeteer-core');
    const isAsked = frames === 'free' && found.shell && process.platform !== 'darwin';
    let browser: Browser;
    try {
      browser = await puppeteer.launch({
        executablePath: found.executable,
        pipe: true,
        headless: found.shell ? 'shell' : true,
        defaultViewport: null,
        timeout: LAUNCH_MS,
        protocolTimeout: 0,
        handleSIGINT: false,
        handleSIGTERM: false,
        handleSIGHUP: false,
        // Scroll bars are part of what is measured.
        ignoreDefaultArgs: ['--hide-scrollbars'],
        args: [
          ...ARGS,
          ...(isAsked ? ASKED_FRAMES : frames === 'free' ? FREE_FRAMES : []),
          blinkSettings(textScale),
          ...(isRoot() ? ['--no-sandbox'] : []),
        ],
        env: { ...process.env, ...found.env, ...fontEnv },
      });
    } catch (error) {
      throw new IsopticError(
        'browser-start',
        `The browser ${found.executable} did not start: ${firstLine(messageOf(error))}`,
        'Run `isoptic doctor` to see what is missing, or name another one with --browser.',
        4,
      );
    }
    return new ChromiumSession(
      browser,
      await browser.version(),
      await browser.target().createCDPSession(),
      isAsked,
    );
  },
};

class ChromiumSession implements BrowserSession {
  readonly engine = chromium;
  readonly version: string;
  private gone = false;
  /** The pages that are open, to be told when the browser goes away. */
  private readonly pages = new Set<ChromiumPage>();
  private readonly waiting = new Set<(error: Error) => void>();

  constructor(
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

function isRoot(): boolean {
  return process.getuid?.() === 0;
}

function firstLine(text: string): string {
  return text.split('\n', 1)[0] ?? '';
}

async function settledWithin(promise: Promise<unknown>, ms: number): Promise<void> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<void>((resolve) => {
    timer = setTimeout(resolve, ms);
  });
  await Promise.race([promise.catch(() => undefined), late]);
  clearTimeout(timer);
}
