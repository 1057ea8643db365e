// What comparing costs: matching the elements of two layouts of 1,250 to 20,000 elements with edits between them, and comparing two pictures of 390 × 6,600
// CSS px at ratio 3 (23 megapixels), equal, with one other word, and moved down, with and without layouts that say so, against decoding both. `--check`
// fails where 5,000 elements take more than 60 ms, where time does not stay nearly linear, or where a pair takes more than 1.5 times its decoding, but for
// one of which everything moved and no layout says where to.
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { loadSource } from '../scripts/load-source.mjs';
import { startBrowser } from './lib/browser.mjs';
import { median } from './lib/median.mjs';

const { boxesIn, differingPixels, fromWire, pairingOf, pictureOf, SnapshotView } =
  await loadSource('bench/lib/compare-api.mjs');
const collector = await readFile('dist/page/collector.js', 'utf8');
let isSlow = false;

/** Lists of cards, five elements each, with words of their own; every so-many-th is another one after the edit. */
function html(elements, edited) {
  const cards = Array.from({ length: Math.round(elements / 5) }, (_, i) => {
    if (edited && i % 97 === 3) return '';
    const name = edited && i % 53 === 5 ? `Midsummer crossing ${i}` : `Crossing ${i} to Far Isle`;
    return `<li class="card"><h3>${name}</h3><p>Leaves at ${i % 24}:${String(i % 60).padStart(2, '0')} from pier ${i % 7}</p><div><a href="#">Book ${i}</a></div></li>`;
  });
  const extra = edited ? '<p class="news">A new boat from spring on.</p>' : '';
  return `<!doctype html><title>Crossings</title><style>ul{display:grid;grid-template-columns:repeat(4,1fr)}</style><main>${extra}<ul>${cards.join('')}</ul></main>`;
}

const browser = await startBrowser();
const times = [];
try {
  const tab = await browser.newPage();
  const layout = async (text) => {
    await tab.setContent(text);
    await tab.evaluate(collector);
    return JSON.parse(await tab.evaluate(() => globalThis.isoptic('collect', []))).snapshot;
  };
  for (const elements of [1250, 5000, 20_000]) {
    const [before, after] = [await layout(html(elements, false)), await layout(html(elements, true))];
    const all = Array.from({ length: 9 }, () => {
      const [a, b] = [new SnapshotView(fromWire(before)), new SnapshotView(fromWire(after))];
      const start = performance.now();
      pairingOf(a, b);
      return performance.now() - start;
    });
    times.push(median(all));
    console.log(`matching ${elements} elements: ${median(all).toFixed(1)} ms`);
  }
} finally {
  await browser.close();
}
const growth = times[2] / times[1] / 4;
console.log(`four times as many elements take ${(4 * growth).toFixed(1)} times as long`);
if (times[1] > 60 || growth > 1.6) isSlow = true;

const [width, height] = [1170, 19_800];
const folder = await mkdtemp(join(tmpdir(), 'isoptic-pixels-'));
try {
  const draw = async (name, more, by) => {
    const rows = Array.from(
      { length: 180 },
      (_, i) =>
        `<text x="40" y="${100 + by + 108 * i}" font-size="48" font-family="sans-serif">Crossing ${i} to Far Isle, from pier ${i % 7}</text>`,
    );
    const path = join(folder, name);
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="100%" height="100%" fill="#fbf7f0"/>${rows.join('')}${more}</svg>`;
    await writeFile(
      path,
      await sharp(Buffer.from(svg), { unlimited: true }).png({ compressionLevel: 2 }).toBuffer(),
    );
    return path;
  };
  const decoded = async (path) => {
    const { data, info } = await sharp(path, { limitInputPixels: false })
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    return pictureOf(info.width, info.height, data);
  };
  const MOVED = 72;
  const CELL = 4;
  /** What a layout says of which everything moved down. */
  const shifts = () => {
    const [columns, rows] = [Math.ceil(width / CELL), Math.ceil(height / CELL)];
    const cells = columns * rows;
    const [dx, dy, owner] = [new Int16Array(cells), new Int16Array(cells), new Int32Array(cells)];
    return { columns, rows, dx, dy: dy.fill(MOVED), owner, ownerA: owner, columnsA: columns };
  };
  const areSame = (x, y) => Buffer.compare(x, y) === 0;
  const first = await draw('a.png', '', 0);
  const word = '<rect x="300" y="5000" width="200" height="60" fill="#b00"/>';
  const moved = await draw('d.png', '', MOVED);
  for (const [name, path, map, isBound] of [
    ['equal', await draw('b.png', '', 0), null, true],
    ['one other word', await draw('c.png', word, 0), null, true],
    ['all of it moved, as its layout says', moved, shifts(), true],
    ['all of it moved, without a layout', moved, null, false],
  ]) {
    const ratios = [];
    let found = [];
    for (let turn = 0; turn < 5; turn++) {
      const start = performance.now();
      const [a, b] = await Promise.all([decoded(first), decoded(path)]);
      const read = performance.now();
      const { mask, count, from, to } = differingPixels(a, b, map, undefined, areSame);
      found = count > 0 ? boxesIn(mask, b.width, b.height, from, to) : [];
      ratios.push((performance.now() - start) / (read - start));
    }
    console.log(
      `23 megapixels, ${name}: ${median(ratios).toFixed(2)} times decoding both, ${found.length} boxes`,
    );
    if (median(ratios) > 1.5 && isBound) isSlow = true;
  }
} finally {
  await rm(folder, { recursive: true, force: true });
}
if (process.argv.includes('--check') && isSlow) process.exitCode = 1;
