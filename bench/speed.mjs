// What collection and analysis cost: medians over generated pages of growing size, and the growth between them; a resize and
// collection in place; and how long the program takes to start.
// `--check` fails when the analysis of 5,000 elements takes longer than the bound or growth is far from linear.
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { spawnSync } from 'node:child_process';
import { DEFAULT_ENGINE, NO_ACCESS, NO_ALTERATIONS, openTargets, pickProfiles } from '../dist/index.js';
import { loadSource } from '../scripts/load-source.mjs';
import { median } from './lib/median.mjs';

const { fromWire, judge, NO_DELIVERY, RULES, SnapshotView, toWire } =
  await loadSource('bench/lib/bench-api.mjs');

const SIZES = (process.argv.find((arg) => /^\d/.test(arg)) ?? '500,2000,5000,20000,50000')
  .split(',')
  .map(Number);
const BOUND_MS = 50;
const REPEATS = 21;

/** Cards with headings, text, links and buttons, twelve elements each: what listings are made of. */
function listing(elements) {
  const card = (i) =>
    `<article class="card"><header><h2>Crossing ${i}</h2></header><p>Boat ${i} leaves at <b>noon</b> for <a href="/${i}">pier ${i % 9}</a>.</p><ul><li>Deck</li><li>Cabin</li></ul><div class="row"><button>Book</button><span>12.50</span></div></article>`;
  const cards = Array.from({ length: Math.ceil(elements / 12) }, (_, i) => card(i)).join('\n');
  return `<!doctype html><meta name="viewport" content="width=device-width"><title>Listing</title><style>body{font:16px/1.5 Arial}.list{display:grid;grid-template-columns:repeat(auto-fill,minmax(260px,1fr));gap:12px}.card{background:#eef;border:1px solid #99b;padding:12px}.row{display:flex;gap:8px}</style><main class="list">${cards}</main>`;
}

const folder = await mkdtemp(join(tmpdir(), 'isoptic-speed-'));
const [device] = await pickProfiles(['800x900']);
const jobOf = (url) => ({
  url,
  device,
  access: NO_ACCESS,
  alter: NO_ALTERATIONS,
  timeoutMs: 120_000,
  signal: new AbortController().signal,
});

/** A resize, settling and a full collection in place, on the demo's home page: medians in ms. */
async function inPlace() {
  const site = await openTargets(['demo/as-found/index.html'], { all: false });
  const session = await DEFAULT_ENGINE.launch({ fonts: 'linux', textScale: 1, frames: 'free', log() {} });
  const page = await session.open(jobOf(site.pages[0].url));
  await page.settle('loaded');
  await page.collect({ locate: [] });
  const times = { resize: [], collect: [], all: [] };
  const warm = 30;
  for (let i = 0; i < 150; i++) {
    const start = performance.now();
    const size = { width: 320 + ((i * 37) % 1000), height: 800 };
    await Promise.all([page.resize(size), page.settle('resized')]);
    const resized = performance.now();
    await page.collect({ locate: [] });
    const end = performance.now();
    if (i < warm) continue;
    times.resize.push(resized - start);
    times.collect.push(end - resized);
    times.all.push(end - start);
  }
  await page.close();
  await session.close();
  await site.close();
  return Object.fromEntries(Object.entries(times).map(([name, all]) => [name, median(all)]));
}

/** How long a command of the built program takes, and how long Node takes to do nothing: medians in ms. */
function startUp(...args) {
  const timed = (command) => {
    const start = performance.now();
    spawnSync(process.execPath, command, { stdio: 'ignore' });
    return performance.now() - start;
  };
  const runs = Array.from({ length: 9 }, () => [timed(['dist/cli/main.js', ...args]), timed(['-e', '0'])]);
  return [median(runs.map(([program]) => program)), median(runs.map(([, bare]) => bare))];
}

const browser = await DEFAULT_ENGINE.launch({ fonts: 'linux', textScale: 1, log() {} });
const rows = [];
try {
  for (const size of SIZES) {
    const file = join(folder, `page-${size}.html`);
    await writeFile(file, listing(size));
    const site = await openTargets([file], { all: false });
    const page = await browser.open(jobOf(site.pages[0].url));
    await page.settle('loaded');
    const collected = await page.collect({ locate: [] });
    const { collectMs } = (await page.facts()).timings;
    await page.close();
    await site.close();
    const wire = toWire(collected);
    const text = JSON.stringify(wire);
    const times = [];
    for (let i = 0; i < REPEATS; i++) {
      const snapshot = fromWire(JSON.parse(text));
      const start = performance.now();
      // A new view each time: nothing that was computed before is used.
      const view = new SnapshotView(snapshot);
      judge({ page: 'p', device, view, httpStatus: 200, delivery: NO_DELIVERY, essentials: [] }, RULES);
      times.push(performance.now() - start);
    }
    const { count } = collected.nodes;
    rows.push({
      count,
      collect: collectMs,
      analyse: median(times),
      packed: gzipSync(text).length / 1e6,
    });
  }
} finally {
  await browser.close();
  await rm(folder, { recursive: true, force: true });
}

console.log(
  '| elements | collection | analysis, median | µs an element | packed |\n| --- | --- | --- | --- | --- |',
);
for (const { count, collect, analyse, packed } of rows) {
  console.log(
    `| ${count} | ${collect.toFixed(0)} ms | ${analyse.toFixed(1)} ms | ${((1000 * analyse) / count).toFixed(1)} | ${packed.toFixed(2)} MB |`,
  );
}
const { resize, collect, all } = await inPlace();
console.log(
  `\nIn place, the demo's home page: ${all.toFixed(1)} ms (resized and at rest ${resize.toFixed(1)}, collected ${collect.toFixed(1)})`,
);
for (const args of [['--version'], ['--help'], ['profiles']]) {
  const [program, bare] = startUp(...args);
  console.log(`${args[0]}: ${program.toFixed(0)} ms, Node alone ${bare.toFixed(0)} ms`);
}
if (process.argv.includes('--check')) {
  const at5000 = rows.find(({ count }) => count >= 5_000);
  const growth = rows.at(-1).analyse / rows.at(-1).count / (at5000.analyse / at5000.count);
  if (at5000.analyse > BOUND_MS || growth > 3) {
    console.error(
      `Too slow: ${at5000.analyse.toFixed(1)} ms at ${at5000.count} elements (bound ${BOUND_MS}), growth ${growth.toFixed(2)} an element.`,
    );
    process.exitCode = 1;
  }
}
