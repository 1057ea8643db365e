// What a check costs beside its page loads and pictures: in turn and in one run, the built program, a plain loop that a tester
// would write, and the protocol's own floor, for the same pages, viewports and pictures. Prints medians and ratios.
//   node bench/ratio.mjs [--rounds 3] [--root demo/as-found] [pages…]     a folder, and pages below it
import { spawn } from 'node:child_process';
import { createServer } from 'node:http';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import puppeteer from 'puppeteer-core';
import serveStatic from 'serve-static';
import { loadSource } from '../scripts/load-source.mjs';
import { median } from './lib/median.mjs';
import { machineSeconds } from './lib/processor.mjs';

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    rounds: { type: 'string', default: '3' },
    root: { type: 'string', default: 'demo/as-found' },
    'no-plain': { type: 'boolean', default: false },
  },
});
const pages = positionals.length > 0 ? positionals : ['index.html'];

/** Width and height in CSS px, and the pixel ratio. Those under 1000 px are phones and tablets. */
const VIEWPORTS = [
  [320, 568, 2],
  [360, 640, 3],
  [375, 667, 2],
  [390, 844, 3],
  [412, 915, 2.625],
  [430, 932, 3],
  [768, 1024, 2],
  [820, 1180, 2],
  [1024, 768, 2],
  [1280, 800, 1],
  [1440, 900, 1],
  [1920, 1080, 1],
];
const isMobile = (width) => width < 1000;

const { findBrowser } = await loadSource('src/engine/chromium/find-browser.ts');
const { executable, shell, env } = await findBrowser(undefined);
const launch = () =>
  puppeteer.launch({
    executablePath: executable,
    headless: shell ? 'shell' : true,
    pipe: true,
    env: { ...process.env, ...env },
    args: [
      ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  });

const serve = serveStatic(resolve(values.root));
const server = createServer((request, response) =>
  serve(request, response, () => {
    response.statusCode = 404;
    response.end();
  }),
);
await new Promise((ready) => server.listen(0, '127.0.0.1', ready));
const urls = pages.map((page) => `http://127.0.0.1:${server.address().port}/${page}`);
const folder = await mkdtemp(join(tmpdir(), 'isoptic-ratio-'));

/** What a tester's own script would look for. */
const look = () => {
  let sticking = 0;
  for (const element of document.querySelectorAll('body *'))
    if (element.getBoundingClientRect().right > innerWidth) sticking++;
  return [document.documentElement.scrollWidth > document.documentElement.clientWidth, sticking];
};

/** One browser, one page after another, the library's defaults, full pictures at device pixels. */
async function plain() {
  const browser = await launch();
  let at = 0;
  for (const url of urls) {
    for (const [width, height, deviceScaleFactor] of VIEWPORTS) {
      const page = await browser.newPage();
      const mobile = isMobile(width);
      await page.setViewport({ width, height, deviceScaleFactor, isMobile: mobile, hasTouch: mobile });
      await page.goto(url, { waitUntil: 'networkidle0' });
      await page.evaluate(look);
      await page.screenshot({ path: join(folder, `plain-${at++}.png`), fullPage: true });
      await page.close();
    }
  }
  await browser.close();
}

/** Two browsers, isolated contexts, raw protocol: load, one walk, the same two pictures with the fast encoder, written to disk. */
async function floor() {
  const browsers = await Promise.all([launch(), launch()]);
  const jobs = urls.flatMap((url) => VIEWPORTS.map((viewport) => ({ url, viewport })));
  let at = 0;
  const work = async (browser) => {
    for (let job = jobs.shift(); job; job = jobs.shift()) {
      const [width, height, deviceScaleFactor] = job.viewport;
      const context = await browser.createBrowserContext();
      const page = await context.newPage();
      const session = await page.createCDPSession();
      const mobile = isMobile(width);
      await session.send('Emulation.setDeviceMetricsOverride', { width, height, deviceScaleFactor, mobile });
      await page.goto(job.url, { waitUntil: 'load' });
      await page.evaluate(look);
      const { cssContentSize: size } = await session.send('Page.getLayoutMetrics');
      const picture = { format: 'png', optimizeForSpeed: true };
      const clip = { x: 0, y: 0, width: size.width, height: size.height, scale: 1 / deviceScaleFactor };
      const fold = await session.send('Page.captureScreenshot', picture);
      const full = await session.send('Page.captureScreenshot', {
        ...picture,
        captureBeyondViewport: true,
        clip,
      });
      const name = at++;
      await writeFile(join(folder, `fold-${name}.png`), Buffer.from(fold.data, 'base64'));
      await writeFile(join(folder, `full-${name}.png`), Buffer.from(full.data, 'base64'));
      await context.close();
    }
  };
  await Promise.all([0, 1, 2, 3].map((i) => work(browsers[i % 2])));
  await Promise.all(browsers.map((browser) => browser.close()));
}

async function isoptic() {
  const sizes = VIEWPORTS.flatMap(([width, height, ratio]) => [
    '--at',
    `${width}x${height}@${ratio}${isMobile(width) ? '+mobile' : ''}`,
  ]);
  const args = ['dist/cli/main.js', 'check', ...urls, ...sizes, '--quiet', '--fail-on', 'never', '--replace'];
  const child = spawn(process.execPath, [...args, '--out', join(folder, 'run')], {
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  const code = await new Promise((ended) => child.once('exit', ended));
  if (code !== 0) throw new Error(`the check ended with ${code}`);
}

const ways = { ...(values['no-plain'] ? {} : { plain }), floor, isoptic };
const rounds = Object.fromEntries(Object.keys(ways).map((name) => [name, []]));
try {
  for (let round = 0; round < Number(values.rounds); round++) {
    for (const [name, way] of Object.entries(ways)) {
      const [start, before] = [performance.now(), machineSeconds()];
      await way();
      const after = machineSeconds();
      const spent = (kind) => after[kind] - before[kind];
      rounds[name].push({
        took: (performance.now() - start) / 1000,
        worked: spent('worked'),
        idle: spent('idle'),
        stolen: spent('stolen'),
      });
    }
  }
  console.log(
    `${pages.length} page${pages.length === 1 ? '' : 's'} × ${VIEWPORTS.length} viewports, medians of ${values.rounds}, s; of all processors together: worked, idle, taken by other machines:`,
  );
  const of = (name, kind) => median(rounds[name].map((round) => round[kind]));
  const times = (name, kind) => `${(of(name, kind) / of('floor', kind)).toFixed(2)} × the floor`;
  for (const name of Object.keys(ways)) {
    const [took, worked, idle, stolen] = ['took', 'worked', 'idle', 'stolen'].map((kind) =>
      of(name, kind).toFixed(1),
    );
    const compared = name === 'floor' ? '' : `   ${times(name, 'took')}; of work ${times(name, 'worked')}`;
    console.log(`  ${name.padEnd(8)} ${took}   ${worked}  ${idle}  ${stolen}${compared}`);
  }
} finally {
  server.close();
  server.closeAllConnections();
  await rm(folder, { recursive: true, force: true });
}
