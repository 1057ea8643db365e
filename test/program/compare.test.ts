import { cp, mkdir, readdir, readFile, unlink, writeFile } from 'node:fs/promises';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { compareSchema } from '../../src/run/compare/record.js';
import { AFTER, BEFORE, compareSite, ON, page } from '../support/compare-site.js';
import { readManifest } from '../support/program.js';

let temp: Awaited<ReturnType<typeof compareSite>>;
const inTemp = (...args: string[]) => temp.inTemp(...args);
const check = (folder: string, out: string, ...more: string[]) => temp.check(folder, out, ...more);
const compared = (...args: string[]) => temp.compared(...args);

beforeAll(async () => {
  temp = await compareSite();
}, 60_000);
afterAll(() => temp.dispose());

test('two runs: what differs in structure, in pixels and in findings, and how a command ends', async () => {
  const outcome = await inTemp('compare', 'run-before', 'run-after', '--out', 'told');
  expect(outcome.status).toBe(1);
  expect(outcome.stdout).toContain('2 of 2 renders differ');
  expect(outcome.stdout).toMatch(/inserted {2}p\.news is new\n {4}main grew from/);
  expect(outcome.stdout).toMatch(/new error {2}page-overflow/);
  const told = compareSchema.parse(JSON.parse(await readFile(join(temp.path, 'told/compare.json'), 'utf8')));
  expect(told.pairs.map(({ a, b }) => [a, b])).toEqual([
    ['ios-phone-390', 'ios-phone-390'],
    ['windows-laptop-1366', 'windows-laptop-1366'],
  ]);
  const [pair] = told.pairs;
  expect(pair!.differences.map(({ kind }) => kind)).toEqual(['inserted', 'inserted', 'text']);
  expect(pair!.unlike).toBeGreaterThan(0);
  // What moved looks the same where it went.
  expect(pair!.pixels!.boxes.filter(({ explained }) => !explained)).toEqual([]);
  expect(told.findings.new.map(({ rule }) => rule)).toContain('page-overflow');
  for (const file of [pair!.pictures.a!, pair!.pictures.b!]) await readFile(join(temp.path, 'told', file));
  const status = async (...args: string[]) =>
    (await inTemp('compare', 'run-before', 'run-after', '--replace', '--out', 'told', ...args)).status;
  expect(await status('--fail-on', 'never')).toBe(0);
  // The other way round nothing is new, and all the same it is a change.
  const back = ['compare', 'run-after', 'run-before', '--replace', '--out', 'told', '--fail-on'];
  expect((await inTemp(...back, 'new-warning')).status).toBe(0);
  expect((await inTemp(...back, 'change')).status).toBe(1);
});

test('two runs of one site: nothing differs', async () => {
  await check('before', 'again');
  const outcome = await inTemp('compare', 'run-before', 'again', '--fail-on', 'change', '--out', 'same');
  expect(outcome.status).toBe(0);
  expect(outcome.stdout).toContain('Nothing differs: 2 renders of 1 page compared.');
  expect(await readdir(join(temp.path, 'same'))).not.toContain('shots');
});

test('a picture that looks otherwise without another structure is boxed and tied to its element', async () => {
  const canvas = (colour: string) =>
    page(
      `<h1>Tides</h1><canvas id="tide" width="200" height="100"></canvas><script>const c = tide.getContext('2d'); c.fillStyle = '${colour}'; c.fillRect(40, 20, 60, 40)</script>`,
    );
  for (const [folder, colour] of [
    ['teal', '#088'],
    ['red', '#b00'],
  ] as const) {
    await mkdir(join(temp.path, folder));
    await writeFile(join(temp.path, folder, 'index.html'), canvas(colour));
  }
  const { pairs } = await compared('teal', 'red', '--on', 'windows-laptop-1366');
  expect(pairs[0]!.differences).toEqual([]);
  const { boxes, heat, score } = pairs[0]!.pixels!;
  expect(boxes).toMatchObject([{ width: 60, height: 40, selector: '#tide', explained: false }]);
  expect(score).toBeGreaterThan(0);
  await readFile(join(temp.path, 'comparison', heat!));
  const without = await compared('teal', 'red', '--on', 'windows-laptop-1366', '--leave-out', '#tide');
  expect(without.pairs[0]!.pixels!.boxes).toEqual([]);
});

test('two profiles of one run', async () => {
  const { pairs, a, b } = await compared('run-after:ios-phone-390', 'run-after:windows-laptop-1366');
  expect([a.name, b.name]).toEqual(['run-after:ios-phone-390', 'run-after:windows-laptop-1366']);
  expect(pairs).toMatchObject([{ a: 'ios-phone-390', b: 'windows-laptop-1366', pixels: null }]);
  const refused = await inTemp('compare', 'run-after:ios-phone-390', 'run-after');
  expect([refused.status, refused.stderr]).toEqual([
    2,
    expect.stringContaining('Write RUN:PROFILE for both'),
  ]);
  const unknown = await inTemp('compare', 'run-after:tv', 'run-after:tv');
  expect(unknown.stderr).toContain('It has ios-phone-390, windows-laptop-1366.');
});

test('staging and live on two servers, rendered on one lineup; a device that is led elsewhere is told first', async () => {
  const serve = async (text: string) => {
    const server = createServer((request, response) => {
      const isPhone = /iPhone/.test(request.headers['user-agent'] ?? '');
      if (isPhone && request.url === '/' && text === AFTER)
        return response.writeHead(302, { location: '/m/' }).end();
      return response.setHeader('content-type', 'text/html').end(text);
    });
    await new Promise<void>((listening) => server.listen(0, '127.0.0.1', listening));
    return { server, url: `http://127.0.0.1:${(server.address() as AddressInfo).port}/` };
  };
  const [live, staging] = [await serve(BEFORE), await serve(AFTER)];
  try {
    const { pairs, notes } = await compared(live.url, staging.url, '--on', ON, '--no-pixels');
    expect(notes).toEqual([]);
    expect(pairs.map(({ b, variant }) => [b, variant])).toEqual([
      ['ios-phone-390', 'led to another address, /m/ in place of /'],
      ['windows-laptop-1366', null],
    ]);
    expect(pairs[1]!.differences.map(({ kind }) => kind)).toEqual(['inserted', 'inserted', 'text']);
  } finally {
    live.server.close();
    staging.server.close();
  }
});

test('the configuration leaves out elements, kinds and regions, and allows px, page by page', async () => {
  await writeFile(
    join(temp.path, 'lenient.yaml'),
    'compare:\n  - leaveOut: [.news, div]\n  - pages: [home, "index*"]\n    without: [text]\n',
  );
  const { pairs } = await compared('run-before', 'run-after', '--config', 'lenient.yaml');
  expect(pairs.flatMap(({ differences }) => differences)).toEqual([]);
  // Another kind of one element only, in a part of its own.
  await writeFile(
    join(temp.path, 'within.yaml'),
    'compare:\n  - within: [.news]\n    without: [inserted]\n    px: { moved: 4 }\n',
  );
  const kinds = (await compared('run-before', 'run-after', '--config', 'within.yaml')).pairs.map(
    ({ differences }) => differences.map(({ kind }) => kind),
  );
  expect(kinds).toEqual([
    ['inserted', 'text'],
    ['inserted', 'text'],
  ]);
  await writeFile(
    join(temp.path, 'both.yaml'),
    'compare:\n  - within: [.news]\n    regions: [[0, 0, 10, 10]]\n',
  );
  const refused = await inTemp('compare', 'run-before', 'run-after', '--config', 'both.yaml');
  expect(refused).toMatchObject({ status: 2 });
  expect(refused.stderr).toContain('with `within`, only `without` and `px` can be said');
});

test('parts of pages are left out on the command line, in structure and in pixels', async () => {
  const args = ['run-before', 'run-after', '--on', 'windows-laptop-1366'];
  const all = await compared(...args, '--leave-out-area', '0,0,1600,9000');
  expect(all.pairs.flatMap(({ differences, pixels }) => [...differences, ...pixels!.boxes])).toEqual([]);
  const other = await compared(...args, '--leave-out-area', '0,5000,10,10', '--leave-out-area', '5,5,1,1');
  expect(other.pairs.every(({ differences }) => differences.length > 0)).toBe(true);
});

test('what could not be compared is told, and costs nothing else', async () => {
  await cp(join(temp.path, 'run-after'), join(temp.path, 'damaged'), { recursive: true });
  const { renders } = await readManifest(join(temp.path, 'damaged'));
  const file = (profile: string) => renders.find((render) => render.profile === profile)!;
  await writeFile(join(temp.path, 'damaged', file('ios-phone-390').shots.full!), 'no picture');
  const layouts = join(temp.path, 'damaged/layouts', file('windows-laptop-1366').page);
  await unlink(join(layouts, 'windows-laptop-1366.json.gz'));
  const { pairs } = await compared('run-before', 'damaged');
  expect(pairs[0]!.differences.length).toBeGreaterThan(0);
  expect(pairs[0]!.notes[0]).toMatch(/^its pictures could not be compared/);
  expect(pairs[1]!.notes[0]).toMatch(/^its structure could not be compared/);
  expect(pairs[1]).toMatchObject({ unlike: null, differences: [] });
  expect(pairs[1]!.pixels!.boxes.length).toBeGreaterThan(0);
  await inTemp(
    'check',
    'before',
    '--on',
    'ios-phone-390,tv-1920',
    '--no-layouts',
    '--fail-on',
    'never',
    '--out',
    'other',
  );
  const { notes } = await compared('run-before', 'other');
  expect(notes).toEqual([
    'profile only in the first: windows-laptop-1366',
    'profile only in the second: tv-1920',
  ]);
});

test.each([
  [['compare', 'run-before'], 'compare: two things are compared, and 1 were named.'],
  [['compare', 'run-before', 'run-after', '--fail-on', 'error'], '--fail-on error: not one of those.'],
  [['compare', 'run-before', 'run-after', '--tolerance', 'much'], '--tolerance much: not a length.'],
  [
    ['compare', 'run-before', 'run-after', '--leave-out-area', '0,0,80'],
    '--leave-out-area 0,0,80: not a part of a page.',
  ],
  [['compare', 'run-before', 'nowhere/'], 'nowhere/: there is no such file or folder.'],
  [['compare', 'baseline', 'run-after'], 'there is no baseline in it.'],
  [['check', 'before', '--against', 'nowhere'], 'nowhere: there is no such folder.'],
])('%s is refused with what to do', async (args, message) => {
  const outcome = await inTemp(...args);
  expect(outcome.status).toBe(2);
  expect(outcome.stderr).toContain(message);
});
