import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { isoptic, manifestOf, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;

beforeAll(async () => {
  temp = await temporaryFolder();
  await mkdir(join(temp.path, 'site', 'deep'), { recursive: true });
  await writeFile(
    join(temp.path, 'site', 'deep', 'page.html'),
    '<!doctype html><meta name="viewport" content="width=device-width"><title>P</title><p style="font: 16px \'Harbour Sans\', Arial">Text.</p>',
  );
});
afterAll(() => temp.dispose());

let count = 0;
/** Runs in a folder below a configuration of its own. */
async function withConfig(text: string, args: readonly string[], file = 'isoptic.yaml') {
  const folder = join(temp.path, `config-${++count}`);
  await mkdir(join(folder, 'below'), { recursive: true });
  await writeFile(join(folder, file), text);
  return isoptic(args, { cwd: join(folder, 'below') });
}

const CHECK = (...more: string[]) => [
  'check',
  join(temp.path, 'site', 'deep', 'page.html'),
  '--json',
  '--shots',
  'none',
  ...more,
];

// Each mistake: the configuration, and what the message must say: file, line, key, what is allowed.
const MISTAKES: [string, string, RegExp[]][] = [
  [
    'an unknown key',
    'timeout: 10\nlineup: {}\n',
    [/isoptic\.yaml:2: there is no key "lineup"; the nearest known one is "lineups"/],
  ],
  [
    'an unknown key of a profile',
    'profiles:\n  kiosk:\n    from: tv-1920\n    touchpoints: 3\n',
    [/:4: there is no key "profiles\.kiosk\.touchpoints"; .*"touchPoints"/],
  ],
  [
    'a value out of its list',
    'conditions:\n  scheme: dim\n',
    [/:2: conditions\.scheme: must be one of light, dark/],
  ],
  ['a number out of range', 'conditions:\n  zoom: 12\n', [/:2: conditions\.zoom: .*5/]],
  ['the wrong type', 'timeout: soon\n', [/:1: timeout: .*number/]],
  ['broken syntax', 'lineups:\n  a: [ios-phone-390\n', [/isoptic\.yaml:\d+: /]],
  [
    'a profile from nowhere',
    'profiles:\n  kiosk:\n    from: tv-1921\n',
    [/profiles\.kiosk\.from: there is no profile named "tv-1921"/, /Nearest: tv-1920/],
  ],
  [
    'an incomplete profile',
    'profiles:\n  kiosk:\n    platform: linux\n',
    [/profiles\.kiosk\.class/, /Give all keys, or take the rest from another profile/],
  ],
  [
    'profiles in a circle',
    'profiles:\n  a: { from: b }\n  b: { from: a }\n',
    [/takes itself over by way of/],
  ],
  [
    'a default lineup that is not there',
    'lineups:\n  release: [tv-1920]\ndefaultLineup: relaese\n',
    [/no lineup named "relaese"/, /Nearest: release/],
  ],
  [
    'a lineup with an unknown profile',
    'lineups:\n  release: [tv-1921]\ndefaultLineup: release\n',
    [/no profile named "tv-1921"/],
  ],
  [
    'an unknown network',
    'conditions:\n  network: carrier-pigeon\n',
    [/no network named "carrier-pigeon"/, /slow-mobile/],
  ],
];

test.each(MISTAKES)('%s is told with its place and what is allowed', async (_, text, patterns) => {
  const outcome = await withConfig(text, CHECK());
  expect({ status: outcome.status, stdout: outcome.stdout }).toEqual({ status: 2, stdout: '' });
  for (const pattern of patterns) expect(outcome.stderr).toMatch(pattern);
});

test('own profiles, lineups and conditions of a configuration above the working folder are used', async () => {
  const outcome = await withConfig(
    `profiles:
  pier-kiosk-1080:
    from: tv-1920
    viewport: { portrait: { width: 1080, height: 1920 } }
    screen: { width: 1080, height: 1920 }
    orientation: portrait
lineups:
  release: [ios-phone-390:landscape, pier-kiosk-1080, 500x400@2]
defaultLineup: release
`,
    CHECK(),
  );
  expect(outcome.stderr).toBe('');
  expect(
    manifestOf(outcome).profiles.map(({ name, width, height, dpr }) => [name, width, height, dpr]),
  ).toEqual([
    ['ios-phone-390:landscape', 844, 340, 3],
    ['pier-kiosk-1080', 1080, 1920, 1],
    ['500x400@2', 500, 400, 2],
  ]);
});

test('the command line wins, and JSON is read like YAML', async () => {
  const json = JSON.stringify({ lineups: { one: ['tv-1920'] }, defaultLineup: 'one' });
  const outcome = await withConfig(json, CHECK('--on', 'ios-phone-390', '--lineup', 'one'), 'isoptic.json');
  expect(manifestOf(outcome).profiles.map((profile) => profile.name)).toEqual(['ios-phone-390', 'tv-1920']);
});

test('init writes a configuration that is valid as it is and with every comment taken away', async () => {
  const folder = join(temp.path, 'init');
  await mkdir(folder);
  expect((await isoptic(['init'], { cwd: folder })).status).toBe(0);
  const again = await isoptic(['init'], { cwd: folder });
  expect({ status: again.status, stderr: again.stderr }).toMatchObject({
    status: 2,
    stderr: expect.stringContaining('already here') as string,
  });
  expect((await isoptic(['profiles', 'tv'], { cwd: folder })).status).toBe(0);
  const text = await readFile(join(folder, 'isoptic.yaml'), 'utf8');
  await writeFile(join(folder, 'isoptic.yaml'), text.replace(/^# (?=[a-zA-Z]+:| {2})/gm, ''));
  const shown = await isoptic(['profiles', '--show', 'pier-kiosk-1080'], { cwd: folder });
  expect(shown.stderr).toBe('');
  expect(shown.stdout).toMatch(/touch +10 points/);
});

test("a family that is nowhere is named in the run; with the host's fonts nothing is claimed", async () => {
  const args = CHECK('--on', 'windows-laptop-1366');
  const platform = manifestOf(await withConfig('', args));
  expect(platform.renders[0]!.notes).toEqual([
    'Harbour Sans: not on the page nor on the device, laid out with a stand-in',
  ]);
  expect(manifestOf(await withConfig('fonts: host\n', args)).renders[0]!.notes).toEqual([]);
});

describe('profiles import', () => {
  const csv = async (text: string, ...args: string[]) => {
    const file = join(temp.path, `visits-${++count}.csv`);
    await writeFile(file, text);
    return isoptic(['profiles', 'import', file, ...args], { cwd: temp.path });
  };

  test('the smallest lineup with each share, ready for the configuration; bad rows are named', async () => {
    const outcome = await csv(
      'Screen size,Sessions\n390x844,"1,500"\n1366x768,400\nrubbish,7\n360x800,100\n',
      '--cover',
      '0.9',
    );
    expect(outcome.status).toBe(0);
    expect(outcome.stdout).toMatch(
      /ios-phone-390 +1500 +75\.0 % +75\.0 %\n\S*laptop-1366 +400 +20\.0 % +95\.0 %\n\n2 profiles cover 95\.0 % of 2000 visits/,
    );
    expect(outcome.stdout).toMatch(/lineups:\n {2}visitors:\n {4}- ios-phone-390/);
    expect(outcome.stderr).toBe('1 row could not be read: line 4 (no width).\n');
  });

  test('sizes and visits are found by what stands in the columns, whatever their names', async () => {
    const text = 'Country,Screen,Total\nDE,390 × 844,"1,204"\nFR,1366x768,30\nFR,(not set),3\n';
    const { stdout, stderr } = await csv(text, '--cover', '0.9');
    expect(stdout).toMatch(/ios-phone-390 +1204 [^]*\n1 profile covers 97\.6 % of 1234 visits/);
    expect(stderr).toBe('1 row could not be read: line 4 (no width).\n');
    expect((await csv('Screen size,Sessions\nwide,10\n')).stderr).toContain('no row could be read');
  });

  test('a file that is no CSV, or is not there, is told as that', async () => {
    const torn = await csv('width,visits\n"390,10\n');
    expect(torn.status).toBe(2);
    expect(torn.stderr).toMatch(/isoptic: .*csv/i);
    const missing = await isoptic(['profiles', 'import', 'nowhere.csv'], { cwd: temp.path });
    expect(missing.status).toBe(2);
    expect(missing.stderr).toContain('nowhere.csv');
  });

  test('columns are named by option; a missing one is told with those that are there', async () => {
    const text = 'w;n\n390;10\n';
    expect((await csv(text, '--width-column', 'w', '--visits-column', 'n', '--json')).stdout).toContain(
      '"covered": 1',
    );
    const wrong = await csv(text, '--width-column', 'wide');
    expect({ status: wrong.status, stderr: wrong.stderr }).toMatchObject({
      status: 2,
      stderr: expect.stringMatching(/no such column[^]*It has: w, n/) as string,
    });
    expect((await csv('a,b\n1,2\n')).stderr).toMatch(/no column of widths .* was found/);
    expect((await csv('"unclosed,b\n1,2\n')).status).toBe(2);
  });
});
