// The search over widths against looking at every width: whether it finds the same spans and edges, how many layouts it takes, and how
// long. `node bench/sweep.mjs [--one-of N] [NAME] [--write]` takes the demo's pages and one case of so many of the collection, evenly by a hash of
// its name (every one with --one-of 1, which takes hours); `--write` puts the table into docs/sweep.md. Prints every difference.
import { spawnSync } from 'node:child_process';
import { copyFile, mkdir, mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { pageOf } from './lib/bench-page.mjs';
import { casesOf } from './lib/cases.mjs';
import { isSampled } from './lib/sampled.mjs';

const here = dirname(fileURLToPath(import.meta.url));
const root = join(here, '..');
const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { 'one-of': { type: 'string', default: '40' }, write: { type: 'boolean', default: false } },
});
const [only] = positionals;
const oneOf = Number(values['one-of']);
const FROM = 280;
const TO = 1920;

async function pagesIn(folder) {
  await mkdir(join(folder, 'site'));
  await copyFile(join(here, 'pages', 'harbour.svg'), join(folder, 'site/harbour.svg'));
  const demo = (await readdir(join(root, 'demo/as-found'))).filter((name) => name.endsWith('.html'));
  const pages = demo.map((name) => ({ name: `demo/${name}`, file: join(root, 'demo/as-found', name) }));
  for (const { kind, ...entry } of await casesOf(join(here, 'pages'))) {
    const name = `${kind}/${entry.name}`;
    if (!isSampled(name, oneOf)) continue;
    const file = join(folder, 'site', `${kind}--${entry.name}.html`);
    await writeFile(file, pageOf({ ...entry, form: kind === 'constructs' ? 'correct' : 'fault' }));
    pages.push({ name, file });
  }
  return pages.filter(({ name }) => only === undefined || name.includes(only));
}

function sweep(file, folder, ...more) {
  const args = ['sweep', file, '--shots', 'none', '--json', '--fail-on', 'never', '--replace'];
  const run = spawnSync(
    process.execPath,
    [join(root, 'dist/cli/main.js'), ...args, '--out', join(folder, 'run'), ...more],
    { encoding: 'utf8', maxBuffer: 1 << 28, cwd: folder },
  );
  if (run.stdout === '') throw new Error(`${file}: ${run.stderr}`);
  const manifest = JSON.parse(run.stdout);
  const spans = manifest.findings
    .filter(({ spans: own }) => own)
    .map(({ rule, key, spans: own }) => `${rule} ${key}: ${JSON.stringify(Object.values(own)[0])}`);
  const edges = manifest.sweep[0].edges.map(({ width }) => width);
  return { spans, edges, layouts: manifest.sweep[0].layouts, ms: manifest.durationMs };
}

const folder = await mkdtemp(join(tmpdir(), 'isoptic-sweep-'));
const rows = [];
try {
  for (const { name, file } of await pagesIn(folder)) {
    const few = sweep(file, folder);
    const all = sweep(file, folder, '--every');
    const missed = all.spans.filter((span) => !few.spans.includes(span));
    const wrong = few.spans.filter((span) => !all.spans.includes(span));
    const edges = all.edges.filter((width) => few.edges.includes(width)).length;
    rows.push({ name, few, all, same: all.spans.length - missed.length, edges });
    console.error(
      `${name}: ${few.layouts} layouts, ${all.spans.length - missed.length} of ${all.spans.length} findings alike`,
    );
    for (const span of missed) console.error(`  every: ${span.replace('\n', ' ')}`);
    for (const span of wrong) console.error(`  search: ${span.replace('\n', ' ')}`);
  }
} finally {
  await rm(folder, { recursive: true, force: true });
}

const sum = (of) => rows.reduce((total, row) => total + of(row), 0);
const widths = TO - FROM + 1;
const line = (name, few, all, same, edges, ofEdges, times) =>
  `| ${name} | ${few} | ${((100 * few) / widths).toFixed(1)} % | ${same} of ${all} | ${edges} of ${ofEdges} | ${times.toFixed(1)} |`;
const table = [
  '| page | layouts | of all widths | findings with the same spans | edges | times faster |',
  '| --- | --- | --- | --- | --- | --- |',
  ...rows.map(({ name, few, all, same, edges }) =>
    line(name, few.layouts, all.spans.length, same, edges, all.edges.length, all.ms / few.ms),
  ),
  line(
    '**all**',
    Math.round(sum(({ few }) => few.layouts) / rows.length),
    sum(({ all }) => all.spans.length),
    sum(({ same }) => same),
    sum(({ edges }) => edges),
    sum(({ all }) => all.edges.length),
    sum(({ all }) => all.ms) / sum(({ few }) => few.ms),
  ),
].join('\n');
console.log(table);
if (values.write) {
  const page = join(root, 'docs/sweep.md');
  const text = await readFile(page, 'utf8');
  await writeFile(page, text.replace(/\| page \|[\s\S]*?\n(?=\n|$)/, `${table}\n`));
}
