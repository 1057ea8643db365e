import { access, chmod, mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { isoptic, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
beforeAll(async () => {
  temp = await temporaryFolder();
  await writeFile(join(temp.path, 'quay.html'), '<!doctype html><title>Quay</title><h1>Wickham Quay</h1>');
  for (const name of ['first', 'second', 'third']) {
    const out = join('isoptic-runs', name);
    const { status } = await here('check', 'quay.html', '--at', '300x300', '--shots', 'none', '--out', out);
    expect(status).toBe(0);
  }
}, 60_000);
afterAll(() => temp.dispose());

const here = (...args: string[]) => isoptic(args, { cwd: temp.path });
const isThere = (path: string) =>
  access(join(temp.path, path)).then(
    () => true,
    () => false,
  );

/** As if it had been made so many days ago. */
async function age(run: string, days: number): Promise<void> {
  const file = join(temp.path, 'isoptic-runs', run, 'run.json');
  const startedAt = new Date(Date.now() - days * 86_400_000).toISOString();
  await writeFile(file, JSON.stringify({ ...JSON.parse(await readFile(file, 'utf8')), startedAt }));
}

test('runs are listed the newest first, with what is in them, as a table and as JSON', async () => {
  await age('first', 40);
  await age('second', 5);
  const { stdout } = await here('runs');
  const [head, ...rows] = stdout.trim().split('\n');
  expect(head).toMatch(/^Run +Started +Pages +Profiles +Errors +Warnings +Notices +Size$/);
  expect(rows.map((row) => row.split(/\s{2,}/)[0])).toEqual([
    'isoptic-runs/third',
    'isoptic-runs/second',
    'isoptic-runs/first',
  ]);
  const json = JSON.parse((await here('runs', '--json')).stdout) as { pages: number; bytes: number }[];
  expect(json).toHaveLength(3);
  expect(json[0]).toMatchObject({ pages: 1, profiles: 1, errors: 0 });
  expect(json[0]!.bytes).toBeGreaterThan(1000);
  expect((await here('runs', 'nowhere')).stdout).toMatch(/no runs in nowhere/);
});

test('opens the newest run, or the one that is named; says so where there is nothing to open it with', async () => {
  const bin = join(temp.path, 'bin');
  await mkdir(bin);
  await writeFile(join(bin, 'xdg-open'), '#!/bin/sh\necho "$1" > opened\n');
  await chmod(join(bin, 'xdg-open'), 0o755);
  const open = (path: string, ...args: string[]) =>
    isoptic(['open', ...args], { cwd: temp.path, env: { PATH: path } });
  expect(await open(`${bin}:/bin:/usr/bin`)).toMatchObject({
    status: 0,
    stdout: 'isoptic-runs/third/report.html\n',
  });
  expect((await readFile(join(temp.path, 'opened'), 'utf8')).trim()).toBe('isoptic-runs/third/report.html');
  expect((await open(`${bin}:/bin:/usr/bin`, 'isoptic-runs/first')).stdout).toContain('first/report.html');
  const without = await open('/nonexistent');
  expect([without.status, without.stderr]).toEqual([
    2,
    expect.stringMatching(/Open isoptic-runs.third.report\.html yourself/),
  ]);
});

test('nothing is removed before it is said what goes, and nothing that no run wrote', async () => {
  expect((await here('runs', '--prune')).stderr).toMatch(/--keep NUMBER or --older DAYS/);
  expect((await here('runs', '--keep', '1')).stderr).toMatch(/goes with --prune/);
  const said = await here('runs', '--prune', '--older', '30');
  expect(said.stdout).toMatch(/isoptic-runs\/first[^]*1 run, .* would go\. Add --yes/);
  expect(await isThere('isoptic-runs/first')).toBe(true);
  expect((await here('runs', '--prune', '--older', '30', '--yes')).stdout).toMatch(/1 run, .*, removed/);
  expect(await isThere('isoptic-runs/first')).toBe(false);
  await writeFile(join(temp.path, 'isoptic-runs/second/notes.txt'), 'mine');
  const foreign = await here('runs', '--prune', '--keep', '1', '--yes');
  expect([foreign.status, foreign.stderr]).toEqual([2, expect.stringMatching(/no run wrote \(notes\.txt\)/)]);
  expect(await isThere('isoptic-runs/second/run.json')).toBe(true);
  expect((await here('runs', '--prune', '--keep', '5')).stdout).toMatch(/Nothing goes: 2 runs stay/);
});

test('folders that are no run, or none that can be read, are told with what to do', async () => {
  const file = join(temp.path, 'isoptic-runs/third/run.json');
  const whole = await readFile(file, 'utf8');
  const told = async (text: string | null) => {
    if (text !== null) await writeFile(join(temp.path, 'odd', 'run.json'), text);
    const { status, stderr, stdout } = await here('report', 'odd', '--as', 'csv', '--out', '-');
    expect(stdout).toBe('');
    return `${status} ${stderr}`;
  };
  expect(await told(null)).toMatch(/^2 .*no such folder[^]*isoptic runs/);
  await writeFile(join(temp.path, 'odd'), '');
  expect(await told(null)).toMatch(/^2 .*this is a file/);
  await rm(join(temp.path, 'odd'));
  await mkdir(join(temp.path, 'odd'));
  expect(await told(null)).toMatch(/^2 .*no run was written to its end/);
  expect(await told(whole.slice(0, 200))).toMatch(/^2 .*no whole JSON: it was cut off/);
  expect(await told('[1]')).toMatch(/^2 .*of another program/);
  const manifest = JSON.parse(whole) as { version: number; pages?: unknown };
  expect(await told(JSON.stringify({ ...manifest, version: 2 }))).toMatch(
    /^2 .*newer Isoptic \(format 2; this one reads 1\)/,
  );
  delete manifest.pages;
  expect(await told(JSON.stringify(manifest))).toMatch(/^2 .*\(pages: [^]*Make the run again/);
  expect((await here('runs', '.')).stderr).toMatch(/Note: odd: .*run\.json does not say/);
  expect((await here('open', 'odd')).status).toBe(2);
});
