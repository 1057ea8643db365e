// A browser for what benchmarks look at by themselves: the one that Isoptic would take, driven without it.
import puppeteer from 'puppeteer-core';
import { loadSource } from '../../scripts/load-source.mjs';

/** @param env, args what this one has beside the others */
export async function startBrowser({ env = {}, args = [] } = {}) {
  const { findBrowser } = await loadSource('src/engine/chromium/find-browser.ts');
  const found = await findBrowser(undefined);
  const off = ['quic', 'background-networking', 'component-update', 'sync'].map(
    (name) => `--disable-${name}`,
  );
  return puppeteer.launch({
    executablePath: found.executable,
    headless: found.shell ? 'shell' : true,
    pipe: true,
    env: { ...process.env, ...found.env, ...env },
    args: [...off, '--no-first-run', ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []), ...args],
  });
}
