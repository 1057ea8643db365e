import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { isoptic, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;

beforeAll(async () => {
  temp = await temporaryFolder();
  await mkdir(join(temp.path, 'empty'));
  await mkdir(join(temp.path, 'old'));
  await writeFile(join(temp.path, 'old', 'run.json'), '{}');
  await writeFile(join(temp.path, 'page.html'), '<!doctype html><title>P</title>');
  await writeFile(join(temp.path, 'plain'), '');
});
afterAll(() => temp.dispose());

// Each mistake: what is typed, the exit status, what the message must say (what was wrong, and what to do).
const MISTAKES: [string, string[], number, RegExp[]][] = [
  ['no target', ['check'], 2, [/nothing to check/, /--help/]],
  ['no such command', ['chekc'], 2, [/unknown command/, /check/]],
  ['no such option', ['check', 'page.html', '--shot', 'x'], 2, [/unknown option '--shot'/, /--shots/]],
  [
    'a file that is not there',
    ['check', 'nowhere.html'],
    2,
    [/nowhere\.html: there is no such file/, /http:\/\//],
  ],
  ['a folder without HTML', ['check', 'empty'], 2, [/empty: the folder holds no HTML file/]],
  ['a folder without an index', ['check', '.'], 2, [/no index\.html/, /--all/]],
  [
    'an unknown profile',
    ['check', 'page.html', '--on', 'ios-fone-390'],
    2,
    [/no profile named "ios-fone-390"/, /Nearest: ios-phone-390/],
  ],
  ['--at 0x10', ['check', 'page.html', '--at', '0x10'], 2, [/the width 0 is out of range/, /50 to 16384/]],
  ['--at 390', ['check', 'page.html', '--at', '390'], 2, [/--at 390: not a size/, /390x844/]],
  [
    '--at 99999x99999@9',
    ['check', 'page.html', '--at', '99999x99999@9'],
    2,
    [/the width 99999 is out of range/],
  ],
  [
    'a bad threshold',
    ['check', 'page.html', '--fail-on', 'erorr'],
    2,
    [/no such threshold/, /nearest: error/],
  ],
  ['a bad shot', ['check', 'page.html', '--shots', 'half'], 2, [/no shot "half"/]],
  ['a bad time limit', ['check', 'page.html', '--timeout', 'soon'], 2, [/not a time limit/]],
  [
    'a run that already exists',
    ['check', 'page.html', '--out', 'old'],
    2,
    [/a run is already there/, /--replace/],
  ],
  [
    'an output folder that can not be written',
    ['check', 'page.html', '--out', 'plain/run'],
    2,
    [/--out plain\/run: the run folder can not be written/],
  ],
  [
    'a browser that is not there',
    ['check', 'page.html', '--browser', '/nowhere/browser'],
    4,
    [/\/nowhere\/browser is not a program/],
  ],
  [
    'a browser that is none',
    ['check', 'page.html', '--browser', process.execPath],
    4,
    [/did not start/, /isoptic doctor/],
  ],
];

test.each(MISTAKES)('%s', async (_, args, status, patterns) => {
  const outcome = await isoptic(args, { cwd: temp.path });
  expect({ status: outcome.status, stdout: outcome.stdout }).toEqual({ status, stdout: '' });
  for (const pattern of patterns) expect(outcome.stderr).toMatch(pattern);
  expect(outcome.stderr).not.toMatch(/^\s+at .*\(.*:\d+:\d+\)/m);
});

test('a browser named in the environment is used, and said to be at fault', async () => {
  const outcome = await isoptic(['doctor'], { env: { ISOPTIC_BROWSER: '/nowhere/browser' } });
  expect(outcome.status).toBe(4);
  expect(outcome.stdout).toMatch(/missing\s+browser\s+ISOPTIC_BROWSER: \/nowhere\/browser/);
});

test('help names every command, and each command shows an example', async () => {
  const help = await isoptic(['--help']);
  expect(help.status).toBe(0);
  for (const command of ['check', 'demo', 'profiles', 'doctor', 'init']) {
    expect(help.stdout).toContain(`${command} `);
    const own = await isoptic([command, '--help']);
    expect(own.status).toBe(0);
    expect(own.stdout).toMatch(new RegExp(`Examples?:\\n +isoptic ${command}`));
  }
});

test('the version is that of the package', async () => {
  const { stdout, stderr } = await isoptic(['--version']);
  expect(stdout.trim()).toMatch(/^\d+\.\d+\.\d+$/);
  // A V8 that does not know a flag says so.
  expect(stderr).toBe('');
});

test('profiles are listed as a table, narrowed by words, and as JSON', async () => {
  expect((await isoptic(['profiles'])).stdout).toMatch(
    /Phones\n[^]*ios-phone-390 +ios +390 × 664 +844 × 340 +3 +460 +yes[^]*Televisions/,
  );
  const tablets = JSON.parse(
    (await isoptic(['profiles', 'tablet', 'ios', 'width', '815..830', '--json'])).stdout,
  ) as {
    name: string;
  }[];
  expect(tablets.map((profile) => profile.name)).toEqual(['ios-tablet-820']);
  expect((await isoptic(['profiles', 'fridge'])).stdout).toContain('No profile fits "fridge"');
});
