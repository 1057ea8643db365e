import { mkdir, readdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { compareSite, ON } from '../support/compare-site.js';
import { readManifest } from '../support/program.js';

let temp: Awaited<ReturnType<typeof compareSite>>;
const inTemp = (...args: string[]) => temp.inTemp(...args);
const check = (folder: string, out: string, ...more: string[]) => temp.check(folder, out, ...more);
const compared = (...args: string[]) => temp.compared(...args);

beforeAll(async () => {
  temp = await compareSite();
}, 60_000);
afterAll(() => temp.dispose());

describe('a baseline', () => {
  beforeAll(async () => {
    await check('before', 'again');
    await mkdir(join(temp.path, '.git'));
    await writeFile(join(temp.path, '.git/HEAD'), 'ref: refs/heads/main\n');
  });
  const branch = (name: string) => writeFile(join(temp.path, '.git/HEAD'), `ref: refs/heads/${name}\n`);

  test('is kept, held against, taken over render by render, and each branch has its own', async () => {
    const saved = await inTemp('baseline', 'save', 'run-before');
    expect(saved.stdout).toMatch(/^Kept 1 page on 2 profiles, \d+ findings? as the baseline of main/);
    const same = await inTemp(
      'compare',
      'baseline',
      'run-before',
      '--fail-on',
      'change',
      '--out',
      'against',
      '--replace',
    );
    expect(same).toMatchObject({ status: 0 });
    const objects = (await readdir(join(temp.path, 'isoptic-baseline/objects'), { recursive: true })).filter(
      (name) => name.includes('.'),
    );
    expect(objects.some((name) => name.endsWith('.webp'))).toBe(true);
    // Saved again it is the same files.
    await inTemp('baseline', 'save', 'again');
    const after = (await readdir(join(temp.path, 'isoptic-baseline/objects'), { recursive: true })).filter(
      (name) => name.includes('.'),
    );
    expect(after.filter((name) => name.endsWith('.webp')).sort()).toEqual(
      objects.filter((name) => name.endsWith('.webp')).sort(),
    );

    await branch('feature/boats');
    const changed = await compared('baseline', 'run-after');
    expect(changed.a.name).toBe('the baseline of main');
    expect(changed.pairs.every(({ differences }) => differences.length > 0)).toBe(true);
    await writeFile(
      join(temp.path, 'meant.txt'),
      `# what is meant\n${changed.pairs[0]!.page} ios-phone-390\n`,
    );
    const taken = await inTemp('baseline', 'take', 'run-after', '--list', 'meant.txt');
    expect(taken.stdout).toMatch(/^Took over 1 render; the baseline of feature\/boats has/);
    const partly = await compared('baseline', 'run-after');
    expect(partly.pairs.map(({ b, differences }) => [b, differences.length > 0])).toEqual([
      ['ios-phone-390', false],
      ['windows-laptop-1366', true],
    ]);
    const shown = await inTemp('baseline', 'show');
    expect(shown.stdout).toMatch(/^main\n[^]*^feature\/boats {2}\(this branch\)$/m);
    await branch('main');
    expect(
      (await compared('baseline', 'run-before')).pairs.flatMap(({ differences }) => differences),
    ).toEqual([]);
    await branch('feature/boats');
    expect((await inTemp('baseline', 'drop')).stdout).toBe('Dropped the baseline of feature/boats.\n');
    expect((await inTemp('baseline', 'drop')).stdout).toContain('has no baseline of its own');
  });

  test('a check against it fails on what is new only', async () => {
    await branch('main');
    await inTemp('baseline', 'save', 'run-after');
    const args = ['check', 'after', '--on', ON, '--out'];
    expect((await inTemp(...args, 'alone')).status).toBe(1);
    const held = await inTemp(...args, 'held', '--against', 'baseline');
    expect(held.status).toBe(0);
    expect(held.stdout).toMatch(/Against the baseline of main: \d+ known findings? not listed, 0 gone\./);
    const { against, findings } = await readManifest(join(temp.path, 'held'));
    expect(against!.known).toEqual(findings.map(({ id }) => id));
    const fresh = await inTemp('check', 'after', '--on', ON, '--out', 'fresh', '--against', 'run-before');
    expect(fresh.status).toBe(1);
    expect(fresh.stdout).toMatch(/1 new error/);
  });

  test('a damaged one, and one of another version, are told', async () => {
    const path = join(temp.path, 'isoptic-baseline/main.json');
    const text = await readFile(path, 'utf8');
    await writeFile(path, text.slice(0, 500));
    expect((await inTemp('compare', 'baseline', 'run-after')).stderr).toContain('it is no whole JSON');
    await writeFile(path, JSON.stringify({ format: 'isoptic-baseline', version: 9 }));
    expect((await inTemp('compare', 'baseline', 'run-after')).stderr).toContain('written by a newer Isoptic');
    await writeFile(path, text);
  });
});
