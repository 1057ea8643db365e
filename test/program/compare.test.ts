import { cp, mkdir, readdir, readFile, unlink, writeFile } from 'node:fs/promises';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { compareSchema } from '../../src/run/compare/record.js';
import { AFTER, BEFORE, compareSite, ON, page } from '../support/compare-site.js';
import { readManifest } from '../support/program.js';
import { drawn, openReport, startBrowser } from '../support/tab.js';

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

describe('the view of a comparison', () => {
  let browser: Browser;
  beforeAll(async () => {
    browser = await startBrowser();
    await inTemp('compare', 'run-before', 'run-after', '--replace', '--out', 'view', '--fail-on', 'never');
  });
  afterAll(() => browser.close());

  test('two pictures scroll in step, under a slider, one through the other, one after the other, as heat; what is meant becomes a list', async () => {
    const report = join(temp.path, 'view/compare.html');
    const { page: tab, complaints } = await openReport(browser, report, '', { waitFor: '.comparing' });
    await drawn(tab);
    expect(await tab.$$eval('.compare-page img', (all) => all.map((img) => img.naturalWidth > 0))).toEqual([
      true,
      true,
    ]);
    await tab.keyboard.press('j');
    expect(await tab.$eval('.differences .lit', (row) => row.textContent)).toContain('is new');
    await tab.keyboard.press('2');
    await tab.$eval('.over-head input', (input) => {
      input.value = '20';
      input.dispatchEvent(new Event('input', { bubbles: true }));
    });
    await drawn(tab);
    expect(await tab.$eval('.top-picture', (element) => getComputedStyle(element).clipPath)).toBe(
      'inset(0px 80% 0px 0px)',
    );
    await tab.keyboard.press('3');
    await tab.$eval('.over-head input', (input) => {
      input.value = '30';
      input.dispatchEvent(new Event('input', { bubbles: true }));
    });
    await drawn(tab);
    expect(await tab.$eval('.top-picture', (element) => getComputedStyle(element).opacity)).toBe('0.3');
    await tab.keyboard.press('4');
    await drawn(tab);
    expect(await tab.$$('.stack img')).toHaveLength(2);
    await tab.keyboard.press('5');
    await drawn(tab);
    expect(await tab.$eval('.compare-stage', (stage) => stage.textContent)).toContain('looks otherwise');
    await tab.keyboard.press(']');
    expect(await tab.evaluate(() => location.hash)).toContain('pair=1');
    await tab.click('.meant input');
    await drawn(tab);
    expect(await tab.$eval('.meant .copy', (button) => button.textContent)).toBe('Copy list of 1');
    expect(complaints).toEqual([]);
    await tab.close();
  }, 60_000);

  test('all profiles of a page stand in two walls and scroll to the same place', async () => {
    const stops = Array.from({ length: 30 }, (_, i) => `<p>Stop ${i} of the evening boat.</p>`).join('');
    for (const [folder, head] of [
      ['short', ''],
      ['long', '<p class="news" style="height:120px">A new boat from spring on.</p>'],
    ] as const) {
      await mkdir(join(temp.path, folder));
      await writeFile(join(temp.path, folder, 'index.html'), page(`${head}${stops}`));
    }
    const told = await inTemp(
      ...['compare', 'short', 'long', '--on', ON, '--out', 'walls', '--json', '--fail-on', 'never'],
    );
    const { pairs } = compareSchema.parse(JSON.parse(told.stdout));
    const report = join(temp.path, 'walls/compare.html');
    const { page: tab, complaints } = await openReport(browser, report, 'way=beside', {
      waitFor: '.comparing',
    });
    await tab.keyboard.press('6');
    await drawn(tab);
    expect(await tab.evaluate(() => location.hash)).toContain('way=walls');
    expect(await tab.$$eval('.wall-pair h3', (all) => all.map((head) => head.textContent))).toEqual([
      expect.stringMatching(/^ios-phone-390 /),
      expect.stringMatching(/^windows-laptop-1366 /),
    ]);
    await tab.$eval('.walls .compare-window', (window) => (window.scrollTop = 240));
    await drawn(tab);
    const [short, long] = await tab.$$eval('.wall-pair:first-of-type .compare-window', (all) =>
      all.map((window) => window.scrollTop / (window.querySelector('img')!.clientWidth / 390)),
    );
    const grown = pairs[0]!.sizes.b!.height - pairs[0]!.sizes.a!.height;
    expect(grown).toBeGreaterThan(100);
    expect(Math.abs(long! - short! - grown)).toBeLessThan(4);
    await tab.click('.wall-pair:nth-of-type(2) h3 button');
    await drawn(tab);
    expect(await tab.$eval('.compare-list h2', (head) => head.textContent)).toContain('windows-laptop-1366');
    expect(complaints).toEqual([]);
    await tab.close();
  }, 60_000);

  test('passes the check itself', async () => {
    const outcome = await inTemp(
      'check',
      'view/compare.html',
      '--at',
      '1280x800',
      '--at',
      '390x844',
      '--shots',
      'none',
      '--fail-on',
      'warning',
      '--out',
      'of-itself',
    );
    expect([outcome.status, outcome.stdout]).toEqual([0, expect.anything()]);
  });
});
