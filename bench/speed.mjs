// What collection and analysis cost: medians over generated pages of growing size, and the growth between them.
// `--check` fails when the analysis of 5,000 elements takes longer than the bound or growth is far from linear.
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { NO_ACCESS } from '../dist/engine/access.js';
import { chromium } from '../dist/engine/chromium/launch.js';
import { NO_DELIVERY } from '../dist/core/delivery/delivery.js';
import { judge } from '../dist/core/findings/judge.js';
import { toWire, fromWire } from '../dist/core/layout/wire.js';
import { SnapshotView } from '../dist/core/layout/view.js';
import { pickDevices } from '../dist/core/profile/pick.js';
import { loadCatalogue } from '../dist/run/catalogue.js';
import { RULES } from '../dist/core/rules/index.js';
import { openTargets } from '../dist/site/targets.js';
import { gzipSync } from 'node:zlib';

const SIZES = (process.argv.find((arg) => /^\d/.test(arg)) ?? '500,2000,5000,20000,50000')
  .split(',')
  .map(Number);
const BOUND_MS = 50;
const REPEATS = 21;

const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

/** Cards with headings, text, links and buttons, twelve elements each: what listings are made of. */
function listing(elements) {
  const card = (i) =>
    `<article class="card"><header><h2>Crossing ${i}</h2></header><p>Boat ${i} leaves at <b>noon</b> for <a href="/${i}">pier ${i % 9}</a>.</p><ul><li>Deck</li><li>Cabin</li></ul><div class="row"><button>Book</button><span>12.50</span></div></article>`;
  const cards = Array.from({ length: Math.ceil(elements / 12) }, (_, i) => card(i)).join('\n');
  return `<!doctype html><meta name="viewport" content="width=device-width"><title>Listing</title><style>body{font:16px/1.5 Arial}.list{display:grid;grid-template-columns:repeat(auto-fill,minmax(260px,1fr));gap:12px}.card{background:#eef;border:1px solid #99b;padding:12px}.row{display:flex;gap:8px}</style><main class="list">${cards}</main>`;
}

const folder = await mkdtemp(join(tmpdir(), 'isoptic-speed-'));
const [device] = pickDevices([{ at: '800x900' }], await loadCatalogue());
const browser = await chromium.launch({ executable: undefined, fonts: 'linux', textScale: 1, log() {} });
const rows = [];
try {
  for (const size of SIZES) {
    const file = join(folder, `page-${size}.html`);
    await writeFile(file, listing(size));
    const site = await openTargets([file], { all: false });
    const outcome = await browser.render({
      url: site.pages[0].url,
      device,
      access: NO_ACCESS,
      shots: { fold: false, full: false },
      preparations: [],
      alter: { hide: [], mask: [], remove: [] },
      locate: [],
      timeoutMs: 120_000,
      signal: new AbortController().signal,
    });
    await site.close();
    if (outcome.status !== 'ok') throw new Error(outcome.error.message);
    const wire = toWire(outcome.captures[0].snapshot);
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
    const { count } = outcome.captures[0].snapshot.nodes;
    rows.push({
      count,
      collect: outcome.timings.collectMs,
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
