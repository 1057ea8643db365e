import { pathToFileURL } from 'node:url';
import puppeteer, { type Browser, type Page } from 'puppeteer-core';
import { findBrowser } from '../../src/engine/chromium/find-browser.js';

/** A browser for one test file, to look at what Isoptic wrote as its reader does. */
export async function startBrowser(): Promise<Browser> {
  const { executable, shell, env } = await findBrowser(undefined);
  const flags = ['quic', 'background-networking', 'component-update', 'sync'].map(
    (name) => `--disable-${name}`,
  );
  return puppeteer.launch({
    executablePath: executable,
    headless: shell ? 'shell' : true,
    pipe: true,
    env: { ...process.env, ...env },
    args: [...flags, '--no-first-run', ...(process.getuid?.() === 0 ? ['--no-sandbox'] : [])],
  });
}

export interface Tab {
  readonly page: Page;
  /** What the console said, scripts that failed, and what the content security policy refused. */
  readonly complaints: string[];
}

/** Opens a report from disk. @param address what stands after `#` */
export async function openReport(
  browser: Browser,
  file: string,
  address = '',
  { width = 1280, height = 800, scheme = 'light', waitFor = '.pane' } = {},
): Promise<Tab> {
  const page = await browser.newPage();
  const complaints: string[] = [];
  page.on('console', (message) => complaints.push(message.text()));
  page.on('pageerror', (error) => complaints.push(String(error)));
  page.on('request', (request) => {
    if (/^https?:/.test(request.url())) complaints.push(`asked for ${request.url()}`);
  });
  await page.evaluateOnNewDocument(() => {
    document.addEventListener('securitypolicyviolation', (event) => {
      console.log(`refused by the policy: ${event.violatedDirective} ${event.blockedURI}`);
    });
  });
  await page.setViewport({ width, height });
  await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: scheme }]);
  await page.goto(`${pathToFileURL(file).href}${address === '' ? '' : `#${address}`}`);
  await page.waitForSelector(waitFor);
  return { page, complaints };
}

/** Two frames, after which what was asked for is drawn. */
export async function drawn(page: Page): Promise<void> {
  await page.evaluate(
    () => new Promise<void>((resolve) => requestAnimationFrame(() => requestAnimationFrame(() => resolve()))),
  );
}
