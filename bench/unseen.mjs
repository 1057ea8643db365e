// How well the rules do on pages and mistakes that nobody tuned them for. From a seed, mistakes are planted into complete pages, one at a
// time, each at a random element that it can happen to; what each harms is counted in pixels (unseen/oracle.mjs), and what harms nothing
// is dropped. `node bench/unseen.mjs --seed 11 [--count 60] [--out FILE] [--only operator] [--younger] [--youngest] [--newest] [--latest] [--sheets] [--any] [--collection]`;
// with `--sheets` the mistakes are made in the pages' own style sheets, with `--any` any property may be wrong, with `--collection` in the correct pages of bench/pages. Rules are developed on seeds 1 to 10; a
// figure counts when its seed was drawn after the last change.
import { mkdirSync, writeFileSync } from 'node:fs';
import pLimit from 'p-limit';
import { dirname, resolve } from 'node:path';
import { isOfLayout } from './lib/layout-families.mjs';
import { ANY_PROPERTY } from './unseen/any-property.mjs';
import { declarations, mistaken } from './unseen/declarations.mjs';
import { describe, installPaths } from './unseen/describe.mjs';
import { harmsOf, load, placeOf, seen, SIZES, startOracle } from './unseen/oracle.mjs';
import { OPERATORS } from './unseen/operators.mjs';
import { collectionPages, pagesFrom, serve } from './unseen/pages.mjs';
import { findingsOn, PROFILES, startProduct } from './unseen/product.mjs';
import { randomOf } from './unseen/random.mjs';

const option = (name, otherwise) => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? otherwise : process.argv[at + 1];
};
const seed = Number(option('seed', '1'));
const wanted = Number(option('count', '60'));
const only = option('only', null);
const isInSheets = process.argv.includes('--sheets');
const operators = process.argv.includes('--any') ? ANY_PROPERTY : OPERATORS;
const out = option('out', `.setup/unseen-${seed}.json`);
const cache = resolve(option('cache', '.setup/unseen'));

const isOfCollection = process.argv.includes('--collection');
const pool = ['younger', 'youngest', 'newest', 'latest'].find((name) => process.argv.includes(`--${name}`));
const pages = isOfCollection ? await collectionPages(cache) : pagesFrom(cache, pool);
const random = randomOf(seed);
const plants = new Map(pages.map((page, i) => [i + 1, { page }]));
const site = await serve(plants);
const [oracle, product] = await Promise.all([startOracle(), startProduct()]);

/** Of a seed, so many pages get mistakes; of the small ones of the collection, a few each. */
const PAGES = isOfCollection ? Math.ceil(wanted / 4) : 8;
const AT_ONCE = 2;
const chosen = new Set();
while (chosen.size < Math.min(PAGES, pages.length)) chosen.add(random.int(1, pages.length));

const harmKey = ({ kind, index }) => `${kind} ${index}`;

/** A page as it is: its elements at the first size, what is seen of it at each, and what Isoptic finds on it. */
async function originalOf(pageNumber) {
  const url = site.urlOf(pageNumber);
  const first = await load(oracle, url, SIZES[0]);
  await first.evaluate(installPaths);
  const elements = isInSheets ? [] : await first.evaluate(describe);
  const said = isInSheets ? await first.evaluate(declarations) : [];
  await first.close();
  const before = [];
  const byItself = [];
  for (const size of SIZES) {
    const page = await load(oracle, url, size);
    before.push(await seen(page, null));
    await page.close();
    // What is harmed from one load to the next without any mistake, as by a notice of a random colour.
    const again = await load(oracle, url, size);
    byItself.push(new Set(harmsOf(before.at(-1), await seen(again, null), { alters: false }).map(harmKey)));
    await again.close();
  }
  const findings = await findingsOn(product, url);
  return {
    pageNumber,
    elements: elements.filter(({ y }) => y < 6000),
    said,
    before,
    byItself,
    known: sightingsIn(findings),
  };
}

/** How far each finding goes on each size that has it, CSS px, by what makes it the same one. */
function sightingsIn(findings) {
  return new Map(
    findings.flatMap(({ rule, key, seen: on }) =>
      on.map(({ profile, by }) => [`${rule}\n${key}\n${profile}`, by?.px ?? 0]),
    ),
  );
}

/** A page may have a finding already, at another size or by less: what a mistake adds to it is told by its px. */
const GROWN_PX = 3;

const limit = pLimit(AT_ONCE);
const originals = await Promise.all([...chosen].map((pageNumber) => limit(() => originalOf(pageNumber))));
console.error(`unseen: ${originals.length} pages looked at as they are`);

/** @returns a mistake in one of the page's own style sheets; undefined where it has none that can be read */
function drawnInSheet(original) {
  const declaration = original.said.length > 0 ? random.pick(original.said) : null;
  return declaration && { ...mistaken(declaration, random), path: declaration.path, planted: '' };
}

/** @returns a mistake at one element; undefined where the operator fits none */
function drawnAtElement(original) {
  const operator = random.pick(operators);
  const fitting = original.elements.filter((element) => operator.fits(element));
  if (fitting.length === 0 || (only !== null && operator.name !== only)) return undefined;
  const element = random.pick(fitting);
  const css = operator.css(element, random);
  const change = operator.js?.(element, random) ?? '';
  const important = css
    .split(';')
    .filter((one) => one.trim() !== '')
    .map((one) => `${one.trim()} !important`);
  return {
    operator: operator.name,
    path: element.path,
    css,
    js: change,
    alters: change !== '',
    planted: `${element.path} { ${important.join('; ')} }`,
    plantedScript:
      change === ''
        ? ''
        : `{ const e = document.querySelector(${JSON.stringify(element.path)}); if (e) { ${change} } }`,
  };
}

/** All plants are drawn first, so that the seed alone decides them. */
let number = pages.length;
const drawn = [];
for (let tries = 0; drawn.length < wanted && tries < wanted * 40; tries++) {
  const original = random.pick(originals);
  const mistake = isInSheets ? drawnInSheet(original) : drawnAtElement(original);
  if (!mistake) continue;
  const { planted, plantedScript = mistake.js, ...told } = mistake;
  plants.set(++number, { page: pages[original.pageNumber - 1], css: planted, js: plantedScript });
  drawn.push({ number, original, ...told });
}

/** @param alsoAt heights that are scrolled to beside that of the mistake, px */
async function harmsOnce(plant, at, alsoAt = []) {
  const page = await load(oracle, site.urlOf(plant.number), SIZES[at]);
  try {
    const place = await placeOf(page, plant.path);
    return harmsOf(plant.original.before[at], await seen(page, [place?.y ?? 0, ...alsoAt]), {
      alters: plant.alters === true,
    });
  } finally {
    await page.close();
  }
}

/** So many places far from the mistake are looked at again. */
const PLACES = 4;

/**
 * What a page's own scripts do one time and not the other is not the mistake's doing, nor what something fixed to the screen hid where
 * nobody had scrolled to: it is looked at again, where it is.
 */
async function harmsAt(plant, at) {
  const first = (await harmsOnce(plant, at)).filter(
    (harm) => !plant.original.byItself[at].has(harmKey(harm)),
  );
  const sure = first.filter(({ kind }) => kind !== 'doubt');
  if (sure.length === 0) return first;
  const places = sure.flatMap(({ rect }) => (rect ? [rect.y + rect.height / 2] : [])).slice(0, PLACES);
  const again = new Set((await harmsOnce(plant, at, places)).map(harmKey));
  return first.filter((harm) => again.has(harmKey(harm)));
}

async function tried(plant) {
  const { original, operator, path, css, js } = plant;
  const sizes = [];
  for (const at of SIZES.keys()) sizes.push(await harmsAt(plant, at));
  const all = await findingsOn(product, site.urlOf(plant.number));
  // What is missing, soft or small is not what is planted here.
  const fresh = all
    .filter(isOfLayout)
    .map((finding) => ({
      ...finding,
      seen: finding.seen.filter(({ profile, by }) => {
        const before = original.known.get(`${finding.rule}\n${finding.key}\n${profile}`);
        return before === undefined || (by?.px ?? 0) >= before + GROWN_PX;
      }),
    }))
    .filter(({ seen: on }) => on.length > 0);
  const told = new Set(fresh.flatMap(({ seen: on }) => on.map(({ profile }) => profile)));
  const result = {
    number: plant.number,
    page: pages[original.pageNumber - 1].name,
    operator,
    path,
    css,
    js,
    harmed: PROFILES.filter((_, at) => sizes[at].some(({ kind }) => kind !== 'doubt')),
    doubtful: PROFILES.filter(
      (_, at) => sizes[at].length > 0 && sizes[at].every(({ kind }) => kind === 'doubt'),
    ),
    told: PROFILES.filter((name) => told.has(name)),
    harms: sizes.map((harms) => harms.slice(0, 4)),
    findings: fresh.map(({ rule, severity, selector, message, seen: on }) => ({
      rule,
      severity,
      selector,
      message,
      on: on.map(({ profile }) => profile),
    })),
  };
  console.error(
    `${operator} on ${result.page}: harmed ${result.harmed.join(',') || '-'} told ${result.told.join(',') || '-'}`,
  );
  return result;
}

const results = (
  await Promise.all(
    drawn.map((plant) =>
      limit(() => tried(plant)).catch((error) => {
        console.error(`unseen: ${plant.operator}: ${error.stack}`);
        return null;
      }),
    ),
  )
).filter((result) => result !== null);
await Promise.all([oracle.close(), product.close(), site.close()]);

mkdirSync(dirname(out), { recursive: true });
writeFileSync(out, JSON.stringify({ seed, results }, null, 1));
const percent = (part, all) => (all === 0 ? '-' : `${((100 * part) / all).toFixed(1)} %`);
const harmful = results.filter(({ harmed }) => harmed.length > 0);
const probes = harmful.flatMap(({ harmed, told }) => harmed.map((name) => told.includes(name)));
const harmless = results.flatMap(({ harmed, doubtful, told }) =>
  PROFILES.filter((name) => !harmed.includes(name) && !doubtful.includes(name)).map((name) =>
    told.includes(name),
  ),
);
const exact = harmful.filter(
  ({ harmed, doubtful, told }) => harmed.join() === told.filter((name) => !doubtful.includes(name)).join(),
);
console.log(
  `seed ${seed}: ${results.length} plants on ${new Set(results.map(({ page }) => page)).size} pages, ${harmful.length} harm something`,
);
console.log(
  `recall: ${percent(harmful.filter(({ told }) => told.length > 0).length, harmful.length)} of mistakes, ${percent(probes.filter(Boolean).length, probes.length)} of renders that they harm; exactly the right sizes ${percent(exact.length, harmful.length)}`,
);
console.log(
  `told where pixels show no harm: ${percent(harmless.filter(Boolean).length, harmless.length)} of ${harmless.length} renders`,
);
