// What the rules say of complete pages as they are, held against what an eye said of each finding's picture: bench/unseen/verdicts.yaml has a
// verdict for each, by a hash of page and finding. Prints how many are right and wrong, and those that nobody judged yet.
//   node bench/verdicts.mjs [--cache .setup/unseen] [--pool latest: pages of that pool alone] [--shots FOLDER: a picture of each finding
//   that was not judged]
import { createHash } from 'node:crypto';
import { mkdirSync, readFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import pLimit from 'p-limit';
import { parse, stringify } from 'yaml';
import { isOfLayout } from './lib/layout-families.mjs';
import { startBrowser } from './lib/browser.mjs';
import { SIZES } from './unseen/oracle.mjs';
import { pagesFrom, serve } from './unseen/pages.mjs';
import { findingsOn, PROFILES, startProduct } from './unseen/product.mjs';

const { values } = parseArgs({
  options: {
    cache: { type: 'string', default: '.setup/unseen' },
    pool: { type: 'string', multiple: true, default: ['all', 'younger', 'latest'] },
    shots: { type: 'string' },
  },
});
const here = dirname(fileURLToPath(import.meta.url));
const verdicts = new Map(
  (parse(readFileSync(join(here, 'unseen/verdicts.yaml'), 'utf8')) ?? []).map((one) => [one.hash, one]),
);

const cache = resolve(values.cache);
const pages = values.pool.flatMap((pool) => pagesFrom(cache, pool));
const site = await serve(new Map(pages.map((page, i) => [i + 1, { page }])));
const product = await startProduct();
const limit = pLimit(2);
const found = (
  await Promise.all(
    pages.map((page, i) =>
      limit(async () => {
        const url = site.urlOf(i + 1);
        const findings = await findingsOn(product, url);
        return findings
          .filter(isOfLayout)
          .map((finding) => ({ ...finding, page: page.name, url, hash: hashOf(page.name, finding) }));
      }),
    ),
  )
).flat();
await product.close();

const count = { right: 0, wrong: 0 };
const open = [];
for (const finding of found) {
  const verdict = verdicts.get(finding.hash)?.verdict;
  if (verdict in count) count[verdict]++;
  else open.push(finding);
}
if (values.shots !== undefined && open.length > 0) await pictured(open, values.shots);
await site.close();

console.log(
  `${pages.length} pages on ${SIZES.length} sizes: ${found.length} errors and warnings of layout; ${count.right} right, ${count.wrong} wrong, ${open.length} not judged`,
);
for (const { hash, page, rule, severity, selector, message, seen } of open)
  console.log(
    `${stringify([{ hash, page, finding: `${severity} ${rule} ${selector}` }], { lineWidth: 0 })}  # ${message} (${seen.map(({ profile }) => profile).join(', ')})`,
  );

function hashOf(page, { rule, key }) {
  return createHash('sha256').update(`${page}\n${rule}\n${key}`).digest('hex').slice(0, 12);
}

/** The screen round each finding, on the first size that shows it. */
async function pictured(findings, folder) {
  mkdirSync(folder, { recursive: true });
  const browser = await startBrowser();
  for (const { hash, url, seen } of findings) {
    const [{ profile, rect }] = seen;
    const page = await browser.newPage();
    await page.setViewport(SIZES[PROFILES.indexOf(profile)]);
    await page.goto(url, { waitUntil: 'load' }).catch(() => undefined);
    await page.evaluate(`scrollTo({ top: ${Math.max(0, rect.y - 200)}, behavior: 'instant' })`);
    await page.screenshot({ path: join(folder, `${hash}.png`) });
    await page.close();
  }
  await browser.close();
}
