import { join } from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import { isoptic, readManifest, temporaryFolder } from '../support/program.js';
import { drawn, openReport, startBrowser } from '../support/tab.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let browser: Browser;
beforeAll(async () => {
  temp = await temporaryFolder();
  browser = await startBrowser();
});
afterAll(async () => {
  await browser.close();
  await temp.dispose();
});

const address = (page: Page) => page.evaluate(() => decodeURIComponent(location.hash));

test('a handle on the ruler goes through the widths that were searched, by keys and by pointer', async () => {
  const swept = join(temp.path, 'swept');
  const args = ['check', 'demo/as-found/index.html', '--on', 'ios-phone-390', '--sweep', '320..900'];
  await isoptic([...args, '--evidence', 'none', '--fail-on', 'never', '--out', swept]);
  const { edges, shots, from } = (await readManifest(swept)).sweep![0]!;
  const { page, complaints } = await openReport(browser, join(swept, 'report.html'));
  const value = () => page.$eval('.scrub-handle', (handle) => Number(handle.getAttribute('aria-valuenow')));
  const pictured = () =>
    page.$eval('.scrub img', async (img) => {
      // The file is read after the element is drawn.
      await img.decode().catch(() => undefined);
      return { file: decodeURI(img.src).split('/').at(-1)!, isThere: img.naturalWidth > 0 };
    });
  await page.waitForSelector('.scrub-handle');
  expect(await page.$('.scrub')).toBeNull();
  await page.focus('.scrub-handle');
  await page.keyboard.press('Home');
  expect(await value()).toBe(from);
  for (const { width, message } of edges.slice(0, 3)) {
    await page.keyboard.press('ArrowRight');
    expect(await value()).toBe(width);
    await drawn(page);
    expect(await page.$eval('.scrub', (figure) => figure.textContent)).toContain(message);
    expect(await pictured()).toEqual({ file: `${width}.jpg`, isThere: true });
  }
  const at = shots!.findIndex(({ width }) => width === edges[2]!.width);
  await page.keyboard.down('Shift');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.up('Shift');
  expect(await value()).toBe(shots![at + 1]!.width);
  const area = await page.$eval(
    '.scrub-area',
    (element) => element.getBoundingClientRect().toJSON() as DOMRect,
  );
  await page.mouse.click(area.x + area.width / 3, area.y + area.height / 2);
  const clicked = await value();
  expect(clicked).toBeGreaterThan(from);
  expect(await address(page)).toContain(`width=${clicked}`);
  await page.keyboard.press('Escape');
  expect(await page.$('.scrub')).toBeNull();
  expect(complaints).toEqual([]);
  await page.close();
}, 90_000);
