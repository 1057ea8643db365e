import { execFile } from 'node:child_process';
import { cp, mkdir, readdir, readFile, symlink, writeFile } from 'node:fs/promises';
import { basename, join, resolve } from 'node:path';
import { promisify } from 'node:util';
import { XMLParser } from 'fast-xml-parser';
import { manifestJsonSchema } from '../../src/run/manifest.js';
import { loopbackRegistry } from '../support/loopback-registry.js';
import { isoptic, manifestOf, temporaryFolder } from '../support/program.js';

const run = promisify(execFile);
let temp: Awaited<ReturnType<typeof temporaryFolder>>;

/** A folder for PATH with nothing but Node in it: no browser. */
let bin: string;

beforeAll(async () => {
  temp = await temporaryFolder();
  bin = join(temp.path, 'bin');
  await mkdir(bin);
  await symlink(process.execPath, join(bin, 'node'));
  await writeFile(join(temp.path, 'plain'), '');
});
afterAll(() => temp.dispose());

describe('what npm pack makes, installed into an empty folder', () => {
  let home: string;

  beforeAll(async () => {
    const registry = await loopbackRegistry();
    const { stdout } = await run('npm', [
      'pack',
      '--json',
      '--ignore-scripts',
      '--pack-destination',
      temp.path,
    ]);
    const [packed] = JSON.parse(stdout) as [{ filename: string; files: { path: string }[] }];
    expect(
      packed.files.map((file) => file.path).filter((path) => /^(src|test|scripts|node_modules)\//.test(path)),
    ).toEqual([]);

    home = join(temp.path, 'empty');
    await mkdir(home);
    await writeFile(join(home, 'package.json'), '{"private":true}');
    const options = [
      '--registry',
      registry.origin,
      '--cache',
      join(temp.path, 'npm-cache'),
      '--no-audit',
      '--no-fund',
      '--loglevel=error',
    ];
    await run('npm', ['install', ...options, join(temp.path, basename(packed.filename))], { cwd: home });
    await registry.close();
    await cp('demo/as-found', join(home, 'site'), { recursive: true });
  });

  test('runs as a command', async () => {
    const installed = join(home, 'node_modules', '.bin', 'isoptic');
    const shown = await run(installed, ['profiles', 'phone'], { cwd: home });
    expect(shown.stdout).toContain('ios-phone-390');
    const checked = await run(
      installed,
      ['check', 'site/timetable.html', '--on', 'ios-phone-390', '--fail-on', 'never', '--out', 'run'],
      { cwd: home },
    );
    expect(checked.stdout).toContain('page-overflow');
    expect(await readdir(join(home, 'run'))).toContain('report.html');
  });

  test('runs every script of docs/api.md as it is written', async () => {
    const scripts = [...(await readFile('docs/api.md', 'utf8')).matchAll(/```js\n([^]*?)```/g)].map(
      ([, text]) => text!,
    );
    const said: string[] = [];
    for (const [i, script] of scripts.entries()) {
      const file = join(home, `script-${i}.mjs`);
      await writeFile(file, script);
      const { stdout } = await run(process.execPath, [file], { cwd: home }).catch(
        (error: unknown) => error as { stdout: string },
      );
      said.push(stdout);
    }
    const [first, followed, refused, rule, open, again, between, held] = said as [
      string,
      string,
      string,
      string,
      string,
      string,
      string,
      string,
    ];
    expect(first).toMatch(/^error \S+/m);
    expect(followed).toMatch(/^6 pages\n(\d+ of 36: \S+ on \S+\n){36}through\n$/);
    expect(refused).toMatch(/^unknown-profile – .*ios-phone-399.*ios-phone-390/s);
    expect(rule).toMatch(/table/);
    expect(open).toMatch(/^1280 px: .*\n800 px: .*\n400 px: the page is \d+ × \d+ px\na picture\n$/);
    expect(again).toMatch(/^Lantern Isles Ferries \d+\n$/);
    expect(between).toMatch(/^1024x768 1024x768 0 differences\n.*runs.between.compare\.html\n$/);
    expect(held).toMatch(/^\d+ new, \d+ gone.*\ntook over 1 render\nmain \S.*\ntrue\n$/);
    expect(await readFile(join(home, 'runs/first/again.html'), 'utf8')).toMatch(/^<!doctype html>/);
  });

  test('has types that a strict compiler takes', async () => {
    await writeFile(
      join(home, 'typed.mts'),
      `import { check, type CheckOptions, type Rule, type PageSession } from 'isoptic';
const rule: Rule = { meta: { name: 'n', family: 'flow', severity: 'notice', summary: 's' }, check: ({ view }) => (view.count > 0 ? [] : []) };
const options: CheckOptions = { targets: ['site'], rules: [rule], onEvent: (event) => { if (event.kind === 'rendered') console.log(event.done); } };
const { findings } = await check(options);
export const selectors: string[] = findings.map(({ selector }) => selector);
export const sizes = (page: PageSession): Promise<void> => page.resize({ width: 320, height: 568 });
// @ts-expect-error a check without targets is none
await check({});
`,
    );
    const tsc = resolve('node_modules/typescript/bin/tsc');
    const types = resolve('node_modules/@types');
    const options = ['--noEmit', '--strict', '--module', 'nodenext', '--target', 'es2022', '--types', 'node'];
    await run(process.execPath, [tsc, ...options, '--typeRoots', types, 'typed.mts'], { cwd: home });
  });
});

test('without a browser on the system the bundled one is unpacked, once, and renders', async () => {
  // Only what the program itself needs: no browser, and a cache folder that is empty.
  const cache = join(temp.path, 'cache');
  const env = { PATH: bin, XDG_CACHE_HOME: cache, ISOPTIC_BROWSER: undefined };
  await writeFile(
    join(temp.path, 'page.html'),
    '<!doctype html><meta name="viewport" content="width=device-width"><title>P</title><p>Text.</p>',
  );
  const doctor = await isoptic(['doctor'], { env });
  expect(doctor.stdout).toMatch(/ok +browser +\d+\.\d+\.\d+\.\d+, bundled/);
  const [folder, ...others] = (await readdir(join(cache, 'isoptic'))).filter((name) => !/^font/.test(name));
  expect(folder).toMatch(/^chromium-143/);
  expect(others).toEqual([]);
  const outcome = await isoptic(
    [
      'check',
      join(temp.path, 'page.html'),
      '--on',
      'ios-phone-390',
      '--json',
      '--out',
      join(temp.path, 'run'),
    ],
    { env },
  );
  expect(outcome.status).toBe(0);
  expect(manifestOf(outcome).engine.version).toMatch(/^143\./);
}, 300_000);

test('where neither the cache nor the temporary folder can be written, both are named, with what to do', async () => {
  const env = {
    PATH: bin,
    XDG_CACHE_HOME: join(temp.path, 'plain'),
    TMPDIR: join(temp.path, 'plain'),
    ISOPTIC_BROWSER: undefined,
  };
  const outcome = await isoptic(['doctor'], { env });
  expect(outcome.status).toBe(4);
  expect(outcome.stdout + outcome.stderr).toMatch(
    /Neither the cache folder .*plain.* nor the temporary folder .*plain/,
  );
});

test('the published JSON Schema is the one that the code checks with', async () => {
  const schema = JSON.parse(await readFile('docs/schema/run.schema.json', 'utf8')) as { required: string[] };
  expect(schema).toEqual(JSON.parse(JSON.stringify(manifestJsonSchema())));
  expect(schema.required).toEqual(
    expect.arrayContaining(['format', 'version', 'renders', 'findings', 'summary']),
  );
});

test('a cache folder whose name has signs of XML in it serves the fonts all the same', async () => {
  const cache = join(temp.path, 'Ada & <Eve>');
  const outcome = await isoptic(['doctor'], {
    env: { PATH: bin, XDG_CACHE_HOME: cache, ISOPTIC_BROWSER: undefined },
  });
  expect(outcome.status).toBe(0);
  const files = (await readdir(cache, { recursive: true })).filter((file) =>
    /(fonts-\w+-\w+|isoptic-fonts)\.conf$/.test(file),
  );
  expect(files).toHaveLength(2);
  for (const file of files) {
    const text = await readFile(join(cache, file), 'utf8');
    expect(new XMLParser().parse(text)).toHaveProperty('fontconfig.dir');
    expect(text).toContain('Ada &amp; &lt;Eve');
  }
}, 120_000);
