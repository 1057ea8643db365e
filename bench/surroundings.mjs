// Whether the rules see a fault wherever it stands, and leave correct constructs alone there: each piece of lib/pieces.mjs in each
// surrounding, on one size. Prints what is passed over and what is told wrongly; `--one-of N` takes one page of so many, evenly by a hash of its
// name; `--in NAME[,NAME…]` takes these surroundings alone; `--check` fails where there is anything to print.
import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { checkSite } from './lib/check-site.mjs';
import { isSampled } from './lib/sampled.mjs';
import { CORRECT, FAULTS } from './lib/pieces.mjs';
import { documentOf, NO_FAULT, NOT_CORRECT, SURROUNDINGS } from './lib/surroundings.mjs';
import { isOfLayout } from './lib/layout-families.mjs';

const { values } = parseArgs({
  options: {
    'one-of': { type: 'string', default: '1' },
    in: { type: 'string' },
    check: { type: 'boolean', default: false },
  },
});
const pages = new Map();
const wanted = values.in?.split(',') ?? Object.keys(SURROUNDINGS);
for (const where of wanted) {
  for (const [kind, pieces, left] of [
    ['fault', FAULTS, NO_FAULT],
    ['correct', CORRECT, NOT_CORRECT],
  ])
    for (const [what, piece] of Object.entries(pieces)) {
      const name = `${kind}-${where}-${what}`;
      if (!left.has(`${where} ${what}`) && isSampled(name, Number(values['one-of'])))
        pages.set(`${name}.html`, { kind, where, what, html: documentOf(piece, where) });
    }
}

const folder = await mkdtemp(join(tmpdir(), 'isoptic-surroundings-'));
try {
  const site = join(folder, 'site');
  await mkdir(site);
  await Promise.all([...pages].map(([file, { html }]) => writeFile(join(site, file), html)));
  const run = checkSite(folder, ['360x720+mobile']);
  if (run.summary.failed > 0) throw new Error(`${run.summary.failed} pages could not be rendered`);
  const told = new Map(run.pages.map(({ id, source }) => [id, { source, findings: [] }]));
  for (const finding of run.findings)
    if (isOfLayout(finding) && finding.severity !== 'notice') told.get(finding.page).findings.push(finding);
  const wrong = [...told.values()].flatMap(({ source, findings }) => {
    const { kind, where, what } = pages.get(source);
    if (kind === 'fault') return findings.length > 0 ? [] : [`MISSED ${what} in ${where}`];
    return findings.map(
      ({ rule, selector, message }) => `FALSE  ${what} in ${where}: ${rule} ${selector}: ${message}`,
    );
  });
  for (const line of wrong) console.log(line);
  const count = (wanted) => [...pages.values()].filter(({ kind }) => kind === wanted).length;
  console.log(`${count('fault')} faults and ${count('correct')} correct pieces: ${wrong.length} wrong`);
  if (values.check && wrong.length > 0) process.exitCode = 1;
} finally {
  await rm(folder, { recursive: true, force: true });
}
