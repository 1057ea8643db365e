// What a contact sheet of twelve profiles takes, as a whole command, beside reading its twelve pictures in a process of its own.
// Medians of seven turns of each, in turn.
import { spawnSync } from 'node:child_process';
import { mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { median } from './lib/median.mjs';

const TURNS = 7;
const SIZES = [
  '320x568@2+mobile',
  '360x640@3+mobile',
  '375x667@2+mobile',
  '390x844@3+mobile',
  '412x915@2.625+mobile',
  '430x932@3+mobile',
  '768x1024@2+mobile',
  '820x1180@2+mobile',
  '1024x768@2',
  '1280x800',
  '1440x900',
  '1920x1080',
];
const READING = `const { default: sharp } = await import('sharp');
await Promise.all(process.argv.slice(1).map((file) => sharp(file).removeAlpha().raw().toBuffer()));`;

const node = (...args) => {
  const start = performance.now();
  const { status, stderr } = spawnSync(process.execPath, args, { encoding: 'utf8' });
  if (status !== 0) throw new Error(stderr);
  return performance.now() - start;
};
const isoptic = (...args) => node('dist/cli/main.js', ...args);

const folder = await mkdtemp(join(tmpdir(), 'isoptic-sheet-bench-'));
try {
  const run = join(folder, 'run');
  isoptic(
    ...['check', 'demo/as-found/index.html', ...SIZES.flatMap((size) => ['--at', size])],
    ...['--out', run, '--fail-on', 'never', '--quiet'],
  );
  const shots = join(run, 'shots', (await readdir(join(run, 'shots')))[0]);
  const folds = (await readdir(shots)).filter((name) => name.includes('.fold.'));
  const ways = {
    'the pictures read': () =>
      node('--input-type=module', '-e', READING, ...folds.map((name) => join(shots, name))),
    fitted: () => isoptic('sheet', run, '--out', join(folder, 'sheet.png')),
    'true scale, framed': () =>
      isoptic('sheet', run, '--scale', 'true', '--frame', '--out', join(folder, 'sheet.png')),
    'fitted, outlined': () => isoptic('sheet', run, '--outlines', '--out', join(folder, 'sheet.png')),
  };
  const times = Object.fromEntries(Object.keys(ways).map((name) => [name, []]));
  for (let turn = 0; turn < TURNS; turn++)
    for (const [name, way] of Object.entries(ways)) times[name].push(way());
  const base = median(times['the pictures read']);
  for (const [name, taken] of Object.entries(times)) {
    const ms = median(taken);
    console.log(`${name.padEnd(20)} ${(ms / 1000).toFixed(2)} s, ${(ms / base).toFixed(2)} ×`);
  }
} finally {
  await rm(folder, { recursive: true, force: true });
}
