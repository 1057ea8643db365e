import { IsopticError, messageOf } from '../../core/errors.js';
import { fontconfigFile } from '../fonts/fontconfig.js';
import type { BrowserSession, Engine, LaunchOptions } from '../engine.js';
import { findBrowser } from './find-browser.js';
import { CHROMIUM_CAPABILITIES } from './chromium-capabilities.js';

const LAUNCH_MS = 30_000;

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
    onAsked,
    log,
  }: LaunchOptions): Promise<BrowserSession> {
    // What needs no browser, help among it, need not wait until its driver is loaded.
    const driver = import('puppeteer-core');
    driver.catch(() => undefined);
    const found = await findBrowser(executable);
    log('starting the browser', { executable: found.executable, origin: found.origin });
    // Only Linux's browsers take their fonts from fontconfig.
    const fontEnv: Record<string, string> =
      fonts === 'host' || process.platform !== 'linux'
        ? {}
        : { FONTCONFIG_FILE: await fontconfigFile(fonts) };
    const { default: puppeteer } = await driver;
    const isAsked = frames === 'free' && found.shell && process.platform !== 'darwin';
    const starting = puppeteer
      .launch({
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
      })
      .catch((error: unknown) => {
        throw new IsopticError(
          'browser-start',
          `The browser ${found.executable} did not start: ${firstLine(messageOf(error))}`,
          'Run `isoptic doctor` to see what is missing, or name another one with --browser.',
          4,
        );
      });
    onAsked?.();
    // What drives a page is loaded while the browser starts.
    const [browser, { ChromiumSession }] = await Promise.all([starting, import('./session.js')]);
    return new ChromiumSession(
      chromium,
      browser,
      await browser.version(),
      await browser.target().createCDPSession(),
      isAsked,
    );
  },
};

function isRoot(): boolean {
  return process.getuid?.() === 0;
}

function firstLine(text: string): string {
  return text.split('\n', 1)[0] ?? '';
}
