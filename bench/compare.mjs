// How right the differences are that are told of two renders: known edits are made to pages of the demo and of the collection, one at a time and
// three at once; each has to be told once, of the right element and as what it is, and nothing else. `node bench/compare.mjs [--seed N]
// [--count N] [--one-of N] [--only EDIT] [--check] [--write]` prints what is missed and what is too much; `--check` fails below 98 %; `--write` puts the table
// into docs/compare.md.
import { readdir, readFile, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { parseArgs } from 'node:util';
import { loadSource } from '../scripts/load-source.mjs';
import { inPage } from './compare/edits.mjs';
import { pageOf } from './lib/bench-page.mjs';
import { startBrowser } from './lib/browser.mjs';
import { casesOf } from './lib/cases.mjs';
import { isSampled } from './lib/sampled.mjs';
import { randomOf } from './unseen/random.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const { values } = parseArgs({
  options: {
    seed: { type: 'string', default: '1' },
    count: { type: 'string', default: '6' },
    'one-of': { type: 'string', default: '20' },
    only: { type: 'string' },
    check: { type: 'boolean', default: false },
    write: { type: 'boolean', default: false },
  },
});
/** Edits that are made to a page one at a time, and of three at once as many. */
const COUNT = Number(values.count);

const { ALL_KINDS, differencesOf, fromWire, pairingOf, SnapshotView } =
  await loadSource('bench/lib/compare-api.mjs');
const collector = await readFile(join(root, 'dist/page/collector.js'), 'utf8');

async function pages() {
  const folder = join(root, 'demo/repaired');
  const demo = (await readdir(folder)).filter((name) => name.endsWith('.html'));
  const found = demo.map((name) => ({ name: `demo/${name}`, url: pathToFileURL(join(folder, name)).href }));
  for (const { kind, ...entry } of await casesOf(join(root, 'bench/pages')))
    if (isSampled(`${kind}/${entry.name}`, Number(values['one-of'])))
      found.push({ name: `${kind}/${entry.name}`, html: pageOf({ ...entry, form: 'correct' }) });
  return found;
}

const layoutIn = async (tab) =>
  new SnapshotView(
    fromWire(JSON.parse(await tab.evaluate(() => globalThis.isoptic('collect', []))).snapshot),
  );

/** Makes edits in the page. @returns of each what has to be told, or null where nothing fits */
const edited = (tab, names, pick) =>
  tab.evaluate(
    async (source, wanted, at) => {
      const edits = new Function(`return (${source})()`)();
      const rectOf = (element) => {
        const { x, y, width, height } = element.getBoundingClientRect();
        return { x: x + scrollX, y: y + scrollY, width, height };
      };
      const made = [];
      const taken = [];
      for (const [nth, name] of wanted.entries()) {
        const { fits, kinds } = edits[name];
        const near = (element) =>
          taken.some(
            (other) =>
              other.contains(element) ||
              element.contains(other) ||
              other.parentElement === element.parentElement,
          );
        const fitting = [...document.body.querySelectorAll('*')].filter(
          (element) => edits.seenAndDeep(element) && !near(element) && fits(element),
        );
        if (fitting.length === 0) return null;
        const element = fitting[Math.floor(at[nth] * fitting.length)];
        taken.push(element);
        made.push({ name, kinds, element, was: rectOf(element) });
      }
      for (const one of made) one.result = await edits[one.name].edit(one.element);
      return made.map(({ name, kinds, was, result, element }) => ({
        name,
        kinds,
        tag: element.localName,
        was,
        is: result.is ? rectOf(result.is) : null,
        or: result.or ? rectOf(result.or) : null,
      }));
    },
    inPage.toString(),
    names,
    pick,
  );

const NEAR = 1.5;
const isAt = (rect, other) =>
  rect !== null &&
  other !== null &&
  ['x', 'y', 'width', 'height'].every((key) => Math.abs(rect[key] - other[key]) <= NEAR);

function isOf(difference, { kinds, was, is, or }) {
  const { kind, places } = difference;
  if (!kinds.includes(kind)) return false;
  return places.some(({ a, b }) => isAt(a, was) || isAt(b, is) || isAt(b, or) || isAt(a, or));
}

const browser = await startBrowser();
const rows = new Map();
const times = [];
const random = randomOf(Number(values.seed));
try {
  const tab = await browser.newPage();
  await tab.setViewport({ width: 1280, height: 800 });
  const names = Object.keys(inPage()).filter(
    (name) => name !== 'seenAndDeep' && (!values.only || name === values.only),
  );
  for (const { name, url, html } of await pages()) {
    for (let nth = 0; nth < 2 * COUNT; nth++) {
      const isThree = nth >= COUNT && !values.only;
      const wanted = Array.from({ length: isThree ? 3 : 1 }, () => names[random.int(0, names.length - 1)]);
      const picks = wanted.map(() => random.int(0, 9999) / 10000);
      if (url) await tab.goto(url);
      else await tab.setContent(html);
      await tab.addStyleTag({
        content: '*, ::before, ::after { transition: none !important; animation: none !important }',
      });
      await tab.evaluate(collector);
      const before = await layoutIn(tab);
      const truths = await edited(tab, wanted, picks);
      // Nothing is seen of more padding in a box of a fixed height.
      if (!truths || truths.some((truth) => truth.kinds.includes('resized') && isAt(truth.was, truth.is)))
        continue;
      const after = await layoutIn(tab);
      const start = performance.now();
      const found = differencesOf(pairingOf(before, after), {
        tolerance: { moved: 1, resized: 1 },
        without: { a: new Set(), b: new Set() },
        kinds: ALL_KINDS,
      });
      times.push(performance.now() - start);
      const right = new Set();
      for (const truth of truths) {
        const key = isThree ? 'three at once' : truth.name;
        const row = rows.get(key) ?? { made: 0, told: 0, extra: 0 };
        rows.set(key, row);
        row.made++;
        // Of repeated elements, several edits are told at once.
        const isFree = (difference) => !right.has(difference) || difference.count > 1;
        const match = found.find((difference) => isFree(difference) && isOf(difference, truth));
        if (match) {
          row.told++;
          right.add(match);
        } else
          console.log(
            `missed  ${name} ${truth.name} ${truth.tag} (${wanted}): ${found.map(({ message }) => message).join(' | ') || 'nothing told'}`,
          );
      }
      const extra = found.filter((difference) => !right.has(difference));
      if (extra.length > 0) {
        rows.get(isThree ? 'three at once' : wanted[0]).extra += extra.length;
        console.log(`extra   ${name} ${wanted}: ${extra.map(({ message }) => message).join(' | ')}`);
      }
    }
  }
} finally {
  await browser.close();
}

const sum = (key) => [...rows.values()].reduce((all, row) => all + row[key], 0);
const [made, toldCount, extra] = ['made', 'told', 'extra'].map(sum);
const share = (part, whole) => `${((100 * part) / Math.max(1, whole)).toFixed(1)} %`;
const lines = [
  '| edit | made | told once, of the right element | told beside it |',
  '| --- | --- | --- | --- |',
  ...[...rows].map(([name, row]) => `| ${name} | ${row.made} | ${row.told} | ${row.extra} |`),
  `| **all** | ${made} | ${toldCount} (${share(toldCount, made)}) | ${extra} (${share(toldCount, toldCount + extra)} of what is told is right) |`,
];
console.log(lines.join('\n'));
times.sort((a, b) => a - b);
console.log(`comparing: ${times[times.length >> 1]?.toFixed(1)} ms median`);
if (values.write) {
  const path = join(root, 'docs/compare.md');
  const text = await readFile(path, 'utf8');
  await writeFile(path, text.replace(/\| edit {2}[^]*?\*\*all\*\*.*\n/, `${lines.join('\n')}\n`));
}
if (values.check && (toldCount < 0.98 * made || toldCount < 0.98 * (toldCount + extra))) process.exitCode = 1;
