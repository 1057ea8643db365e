import { spawnSync } from 'node:child_process';
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { isoptic, temporaryFolder } from '../support/program.js';
import { drawn, openReport, startBrowser } from '../support/tab.js';

test('the report of 30 pages on 40 profiles has only the panes that are in sight, with small pictures first', async () => {
  const temp = await temporaryFolder();
  const browser = await startBrowser();
  try {
    const run = join(temp.path, 'run');
    await mkdir(run);
    const script = `import('./bench/lib/large-run.mjs').then(({ writeLargeRun }) => writeLargeRun(${JSON.stringify(run)}))`;
    const made = spawnSync(process.execPath, ['-e', script], { encoding: 'utf8' });
    expect(made.stderr).toBe('');
    expect((await isoptic(['report', run, '--as', 'html'])).status).toBe(0);
    const { page, complaints } = await openReport(browser, join(run, 'report.html'));
    const names = () =>
      page.$$eval('.pane', (all) => all.map((pane) => (pane as HTMLElement).dataset['profile']));
    const first = await names();
    expect(first.length).toBeLessThan(12);
    const pictures = await page.$$eval('.pane img', (all) =>
      all.map((picture) => picture.getAttribute('src')!),
    );
    expect(pictures[0]).toMatch(/\.preview\.webp$/);
    expect(await page.$eval('.of', (element) => element.textContent)).toBe('1/30');
    await page.$eval('#wall', (wall) => (wall.scrollLeft = wall.scrollWidth));
    await drawn(page);
    const last = await names();
    expect(last.length).toBeLessThan(12);
    expect(last.filter((name) => first.includes(name))).toEqual([]);
    await page.keyboard.press(']');
    await drawn(page);
    expect(await page.evaluate(() => location.hash)).toContain('page=pier-1');
    expect(complaints).toEqual([]);
  } finally {
    await browser.close();
    await temp.dispose();
  }
});
