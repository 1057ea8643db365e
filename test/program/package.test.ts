import { execFile } from 'node:child_process';
import { mkdir, readdir, readFile, symlink, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { promisify } from 'node:util';
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

test('what npm pack makes installs into an empty folder and runs', async () => {
  const registry = await loopbackRegistry();
  try {
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

    const home = join(temp.path, 'empty');
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

    const installed = join(home, 'node_modules', '.bin', 'isoptic');
    const shown = await run(installed, ['profiles', 'phone'], { cwd: home });
    expect(shown.stdout).toContain('ios-phone-390');
    await writeFile(
      join(home, 'page.html'),
      '<!doctype html><meta name="viewport" content="width=device-width"><title>P</title><div style="width:500px">x</div>',
    );
    const checked = await run(
      installed,
      ['check', 'page.html', '--on', 'ios-phone-390', '--fail-on', 'never', '--out', 'run'],
      { cwd: home },
    );
    expect(checked.stdout).toContain('page-overflow');
    expect(await readdir(join(home, 'run'))).toContain('report.html');
  } finally {
    await registry.close();
  }
}, 300_000);

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

test('a cache folder that can not be written is named, with what to do', async () => {
  const env = {
    PATH: bin,
    XDG_CACHE_HOME: join(temp.path, 'plain'),
    ISOPTIC_BROWSER: undefined,
  };
  const outcome = await isoptic(['doctor'], { env });
  expect(outcome.status).toBe(4);
  expect(outcome.stdout).toMatch(/could not be unpacked into .*plain/);
});

test('the published JSON Schema is the one that the code checks with', async () => {
  await run(process.execPath, ['scripts/write-schema.mjs', '--check']);
  const schema = JSON.parse(await readFile('docs/schema/run.schema.json', 'utf8')) as { required: string[] };
  expect(schema.required).toEqual(
    expect.arrayContaining(['format', 'version', 'renders', 'findings', 'summary']),
  );
});
