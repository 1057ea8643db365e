// How long the report of a large run takes until its first pane shows, and how much memory its tab holds once every pane of every
// page was scrolled through. `--check` fails over a second, or over 400 MiB.
import { spawnSync } from 'node:child_process';
import { mkdtemp, readFile, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { startBrowser } from './lib/browser.mjs';
import { writeLargeRun } from './lib/large-run.mjs';

const [pages = 30, profiles = 40] = process.argv.filter((arg) => /^\d+$/.test(arg)).map(Number);
const folder = await mkdtemp(join(tmpdir(), 'isoptic-report-'));
const browser = await startBrowser();
try {
  await writeLargeRun(folder, pages, profiles);
  const told = spawnSync(process.execPath, ['dist/cli/main.js', 'report', folder, '--as', 'html'], {
    encoding: 'utf8',
  });
  if (told.status !== 0) throw new Error(told.stderr);
  const { size } = await stat(join(folder, 'report.html'));
  const tab = await browser.newPage();
  await tab.setViewport({ width: 1280, height: 800 });
  const start = performance.now();
  await tab.goto(pathToFileURL(join(folder, 'report.html')).href);
  await tab.waitForFunction(() =>
    [...document.querySelectorAll('.pane img')].some(
      (picture) => picture.complete && picture.naturalWidth > 0,
    ),
  );
  const openMs = performance.now() - start;
  /** The longest that two frames were apart, ms, while the wall was scrolled through sideways and down. */
  const worstFrame = await tab.evaluate(async (many) => {
    let worst = 0;
    const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));
    const wall = document.getElementById('wall');
    let last = await frame();
    const step = async () => {
      const now = await frame();
      worst = Math.max(worst, now - last);
      last = now;
    };
    for (let page = 0; page < many; page++) {
      for (let x = 0; x < wall.scrollWidth; x += 160) {
        wall.scrollLeft = x;
        await step();
      }
      for (let y = 0; y < 4000; y += 200) {
        document.querySelector('.window').scrollTop = y;
        await step();
      }
      dispatchEvent(new KeyboardEvent('keydown', { key: ']' }));
      await step();
      last = await frame();
    }
    return worst;
  }, pages);
  const memory = await memoryOf(browser.process().pid);
  console.log(`${pages} pages x ${profiles} profiles: report.html ${(size / 2 ** 20).toFixed(1)} MiB`);
  console.log(
    `first pane after ${Math.round(openMs)} ms, longest frame ${Math.round(worstFrame)} ms, tab ${Math.round(memory.own)} MiB after all was scrolled through (and ${Math.round(memory.cache)} MiB of program and decoded pictures that it shares)`,
  );
  if (process.argv.includes('--check') && (openMs > 1000 || memory.own > 400)) process.exitCode = 1;
} finally {
  await browser.close();
  await rm(folder, { recursive: true, force: true });
}

/**
 * Of the tab's process, MiB: its private footprint, as the browser's own task manager counts it (anonymous pages and what is
 * swapped out), and what it maps of the browser's cache of decoded pictures, which all tabs share and which is given up as soon as
 * memory is wanted (512 MiB at most).
 */
async function memoryOf(root) {
  const processes = [];
  const walk = async (pid) => {
    const children = await readFile(`/proc/${pid}/task/${pid}/children`, 'utf8').catch(() => '');
    for (const child of children.split(' ').filter(Boolean)) {
      processes.push(child);
      await walk(child);
    }
  };
  await walk(root);
  const all = await Promise.all(
    processes.map(async (pid) => {
      const line = await readFile(`/proc/${pid}/cmdline`, 'utf8').catch(() => '');
      if (!line.includes('--type=renderer')) return { own: 0, cache: 0 };
      const status = await readFile(`/proc/${pid}/status`, 'utf8').catch(() => '');
      const mebibytes = (key) => Number(new RegExp(`${key}:\\s+(\\d+)`).exec(status)?.[1] ?? 0) / 1024;
      return {
        own: mebibytes('RssAnon') + mebibytes('VmSwap'),
        cache: mebibytes('RssFile') + mebibytes('RssShmem'),
      };
    }),
  );
  return all.reduce((a, b) => (b.own > a.own ? b : a));
}
