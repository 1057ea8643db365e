import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { compareSite, ON, page } from '../support/compare-site.js';
import { compareSchema } from '../../src/run/compare/record.js';
import { drawn, openReport, startBrowser } from '../support/tab.js';

let temp: Awaited<ReturnType<typeof compareSite>>;
let browser: Browser;
const inTemp = (...args: string[]) => temp.inTemp(...args);

beforeAll(async () => {
  temp = await compareSite();
  browser = await startBrowser();
  await inTemp('compare', 'run-before', 'run-after', '--replace', '--out', 'view', '--fail-on', 'never');
}, 120_000);
afterAll(async () => {
  await browser.close();
  await temp.dispose();
});

test('two pictures scroll in step, under a slider, one through the other, one after the other, as heat; what is meant becomes a list', async () => {
  const report = join(temp.path, 'view/compare.html');
  const { page: tab, complaints } = await openReport(browser, report, '', { waitFor: '.comparing' });
  await drawn(tab);
  const pictured = await tab.$$eval('.compare-page img', (all) =>
    Promise.all(all.map((img) => img.decode().then(() => img.naturalWidth > 0))),
  );
  expect(pictured).toEqual([true, true]);
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
