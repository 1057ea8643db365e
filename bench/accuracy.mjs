// Recall, precision and culprit accuracy on our own collection: faults with repaired twins, and correct constructs.
// `--from blind/first` and `blind/second` take the cases that were written before the rules were run on them. Prints every miss. `--one-of N` takes one case of so many, evenly by a hash of its name; `--write` puts the figures into docs/accuracy.md; `--check` fails when they fall below those there.
import { mkdir, mkdtemp, readFile, rm, writeFile, copyFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { BENCH_DEVICES, pageOf } from './lib/bench-page.mjs';
import { casesOf } from './lib/cases.mjs';
import { checkSite } from './lib/check-site.mjs';
import { isSampled } from './lib/sampled.mjs';
import { figuresOf, figuresText } from './lib/figures.mjs';
import { scoreOf } from './lib/score.mjs';

const here = dirname(fileURLToPath(import.meta.url));
const root = join(here, '..');
const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    from: { type: 'string', default: 'pages' },
    'one-of': { type: 'string', default: '1' },
    write: { type: 'boolean', default: false },
    check: { type: 'boolean', default: false },
  },
});
const [only] = positionals;
const oneOf = Number(values['one-of']);

/** What follows it in docs/accuracy.md is not written by `--write`. */
const BY_HAND = '\n<!-- What follows is written by hand. -->\n';

const cases = [];
for (const { kind, ...entry } of await casesOf(join(here, values.from))) {
  if (only && !`${kind}/${entry.name}`.includes(only)) continue;
  if (!isSampled(`${kind}/${entry.name}`, oneOf)) continue;
  if (kind === 'constructs')
    cases.push({ ...entry, form: 'correct', rule: null, id: `correct--${entry.name}` });
  else {
    cases.push({ ...entry, form: 'fault', rule: kind, id: `fault--${kind}--${entry.name}` });
    cases.push({ ...entry, form: 'twin', rule: null, id: `twin--${kind}--${entry.name}` });
  }
}

const folder = await mkdtemp(join(tmpdir(), 'isoptic-accuracy-'));
try {
  await mkdir(join(folder, 'site'));
  await copyFile(join(here, values.from, 'harbour.svg'), join(folder, 'site/harbour.svg'));
  for (const entry of cases) await writeFile(join(folder, 'site', `${entry.id}.html`), pageOf(entry));
  const manifest = checkSite(folder, Object.values(BENCH_DEVICES));
  const scores = await scoreOf(cases, manifest);
  const figures = figuresOf(scores);
  console.log(figuresText(figures));
  for (const line of scores.misses) console.log(line);
  const page = join(root, 'docs/accuracy.md');
  if (values.write) {
    const [, byHand = ''] = (await readFile(page, 'utf8')).split(BY_HAND);
    await writeFile(page, `${figuresText(figures, true)}${BY_HAND}${byHand}`);
  }
  if (values.check) {
    const before = /recall ([\d.]+) %, precision ([\d.]+) %, culprit ([\d.]+) %/.exec(
      await readFile(page, 'utf8'),
    );
    const now = [figures.all.recall, figures.all.precision, figures.all.culprit];
    const fell = now.some((figure, i) => figure * 100 < Number(before[i + 1]) - 0.05);
    if (fell) {
      console.error(`The figures fell below those of docs/accuracy.md (${before[0]}).`);
      process.exitCode = 1;
    }
  }
} finally {
  await rm(folder, { recursive: true, force: true });
}
