import { readFile, rm, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import { findingOf, NAMES, PAGES, runOf } from '../support/manifest.js';
import { isoptic, readManifest, temporaryFolder } from '../support/program.js';
import { drawn, openReport, startBrowser } from '../support/tab.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let browser: Browser;
let report: string;
let run: string;

beforeAll(async () => {
  temp = await temporaryFolder();
  run = join(temp.path, 'run');
  report = join(run, 'report.html');
  const checked = await isoptic([
    'check',
    'demo/as-found/index.html',
    'demo/as-found/fares.html',
    '--on',
    'ios-phone-390,ios-tablet-820,windows-laptop-1366',
    '--turn',
    '--scheme',
    'both',
    '--fail-on',
    'never',
    '--out',
    run,
  ]);
  expect(checked).toMatchObject({ status: 0 });
  browser = await startBrowser();
}, 120_000);
afterAll(async () => {
  await browser.close();
  await temp.dispose();
});

interface Pane {
  readonly name: string;
  readonly width: number;
  readonly height: number;
}

/** The windows onto the page, px. */
const panes = (page: Page): Promise<Pane[]> =>
  page.$$eval('.pane', (all) =>
    all.map((pane) => {
      const { width, height } = pane.querySelector('.window')!.getBoundingClientRect();
      return { name: (pane as HTMLElement).dataset['profile']!, width, height };
    }),
  );
const address = (page: Page) => page.evaluate(() => decodeURIComponent(location.hash));

test('the list of pages lies over everything else, and a page is picked from it', async () => {
  const { page, complaints } = await openReport(browser, report, 'scheme=light');
  await page.click('.picker input');
  const [, fares] = await page
    .waitForFunction(() => document.querySelectorAll('[role=option]').length > 1)
    .then(() => page.$$('[role=option]'));
  await drawn(page);
  const isOnTop = await page.$$eval('[role=option]', (options) =>
    options.map((option) => {
      const { x, y, width, height } = option.getBoundingClientRect();
      return option.contains(document.elementFromPoint(x + width / 2, y + height / 2));
    }),
  );
  expect(isOnTop).toEqual([true, true]);
  await fares!.click();
  await drawn(page);
  expect(await address(page)).toContain('page=fares');
  expect(complaints).toEqual([]);
  await page.close();
});

test('scales: fitted, true to the hand, by CSS px, by device pixels', async () => {
  const { page, complaints } = await openReport(browser, report, 'drawer=false&scheme=light&held=portrait');
  const at = async (key: string) => {
    await page.keyboard.press(key as '1');
    await drawn(page);
    const found = await panes(page);
    const [phone, tablet] = ['ios-phone-390', 'ios-tablet-820'].map((name) =>
      found.find((pane) => pane.name === name)!,
    );
    return { phone: phone!, tablet: tablet! };
  };
  const fit = await at('1');
  expect(fit.phone.height).toBeCloseTo(fit.tablet.height, 0);
  expect(fit.phone.width / fit.phone.height).toBeCloseTo(390 / 664, 2);

  const { profiles } = await readManifest(run);
  const mm = (name: string) => {
    const { width, dpr, density } = profiles.find((profile) => profile.name === name)!;
    return (width * dpr * 25.4) / density!;
  };
  const real = await at('2');
  expect(real.phone.width / real.tablet.width).toBeCloseTo(mm('ios-phone-390') / mm('ios-tablet-820'), 2);
  const ruler = await page.$eval('.cm-ruler', (svg) => svg.getBoundingClientRect().width - 48);
  expect(ruler / 100).toBeCloseTo(real.phone.width / mm('ios-phone-390'), 1);

  const css = await at('3');
  expect(css.phone.width / css.tablet.width).toBeCloseTo(390 / 820, 2);
  const device = await at('4');
  expect(device.phone.width).toBeCloseTo(390 * 3, 0);

  await page.keyboard.press('1');
  await page.keyboard.press('-');
  await drawn(page);
  expect((await panes(page))[0]!.width).toBeCloseTo(fit.phone.width / 1.2, 0);
  expect(complaints).toEqual([]);
  await page.close();
});

test('scrolling one pane brings the same heading to the same height in all, and not when it is switched off', async () => {
  const { page } = await openReport(browser, report, 'drawer=false&scale=css&zoom=0.5');
  const { places } = JSON.parse(await page.$eval('#data', (element) => element.textContent)) as {
    places: Record<string, { kinds: string; at: Record<string, number[]> }>;
  };
  const [{ kinds, at }] = Object.values(places) as [(typeof places)[string]];
  const { renders } = await readManifest(run);
  const heightOf = (name: string) => renders.find(({ profile }) => profile === name)!.document!.height;
  /** Where a heading of the page is, CSS px from its top, on a profile. */
  const yOf = (name: string, heading: number) => {
    const flat = at[name]!;
    const found = flat.findIndex((value, i) => i % 2 === 0 && value === heading);
    return found < 0 ? null : flat[found + 1]!;
  };
  let compared = 0;
  const headings = Array.from(kinds, (kind, i) => (kind === 'h' ? [i] : [])).flat();
  for (const heading of headings) {
    const y = yOf('ios-phone-390', heading);
    if (y === null) continue;
    // The reader scrolls until the heading is a little below the top of the pane.
    await page.$eval(
      '[data-profile="ios-phone-390"]',
      (pane, share) => {
        const [onto, whole] = [pane.querySelector('.window')!, pane.querySelector<HTMLElement>('.whole')!];
        onto.scrollTop = share * whole.offsetHeight - 30;
      },
      y / heightOf('ios-phone-390'),
    );
    await new Promise((resolve) => setTimeout(resolve, 700));
    const panesNow = await page.$$eval('.pane', (all) =>
      all.map((pane) => {
        const [onto, whole] = [pane.querySelector('.window')!, pane.querySelector<HTMLElement>('.whole')!];
        const { scrollTop: top, scrollHeight, clientHeight } = onto;
        const isAtEnd = top <= 0 || top >= scrollHeight - clientHeight - 1;
        return { name: (pane as HTMLElement).dataset['profile']!, top, whole: whole.offsetHeight, isAtEnd };
      }),
    );
    const drawnAt = ({ name, top, whole }: (typeof panesNow)[number]) =>
      (yOf(name, heading)! * whole) / heightOf(name) - top;
    const phone = panesNow.find(({ name }) => name === 'ios-phone-390')!;
    // At its end a page can't be scrolled on to the same place.
    for (const pane of panesNow.filter(({ name, isAtEnd }) => !isAtEnd && yOf(name, heading) !== null)) {
      if (phone.isAtEnd || pane === phone) continue;
      compared++;
      const apart = Math.abs(drawnAt(pane) - drawnAt(phone));
      expect(`${pane.name} ${heading}: ${apart < 8 || apart}`).toBe(`${pane.name} ${heading}: true`);
    }
  }
  expect(compared).toBeGreaterThan(8);

  await page.keyboard.press('s');
  const before = await page.$$eval('.window', (all) => all.map((one) => one.scrollTop));
  await page.$eval('[data-profile="ios-phone-390"] .window', (element) => (element.scrollTop = 20));
  await new Promise((resolve) => setTimeout(resolve, 400));
  const after = await page.$$eval('.window', (all) => all.map((one) => one.scrollTop));
  expect(after.slice(1)).toEqual(before.slice(1));
  await page.close();
});

test('findings by keyboard alone, in the address, and back', async () => {
  const { page, complaints } = await openReport(browser, report);
  await page.keyboard.press('j');
  await page.waitForSelector('.tray');
  const first = await address(page);
  expect(first).toContain('finding=');
  expect(await page.$eval('[role="status"]', (element) => element.textContent)).toMatch(/^error: /);
  expect((await page.$$('.crop .outline.fault')).length).toBeGreaterThan(0);
  expect(await page.$('.mark.open')).not.toBeNull();
  await page.keyboard.press('j');
  await drawn(page);
  expect(await address(page)).not.toBe(first);
  await page.goBack();
  await drawn(page);
  expect(await address(page)).toBe(first);
  await page.keyboard.press('Escape');
  await drawn(page);
  expect(await page.$('.tray')).toBeNull();

  await page.keyboard.press('?');
  // The sheet takes the focus in a frame after the one that draws it.
  await page.waitForFunction(() => Boolean(document.activeElement?.closest('[role="dialog"]')));
  await page.keyboard.press('Escape');
  await page.waitForFunction(() => document.querySelector('[role="dialog"]') === null);

  await page.keyboard.press(']');
  await drawn(page);
  expect(await address(page)).toContain('page=fares');
  await page.keyboard.press('/');
  await page.keyboard.type('overflow');
  await drawn(page);
  const rules = await page.$$eval('.row .rule', (all) => all.map((element) => element.textContent));
  expect(rules.length).toBeGreaterThan(1);
  expect(await page.$eval('.list-note', (element) => element.textContent)).toMatch(
    /on all pages for “overflow”/,
  );
  // The same view by its link.
  const link = page.url();
  const other = await openReport(browser, report, new URL(link).hash.slice(1));
  expect(await other.page.$$eval('.row .rule', (all) => all.map((element) => element.textContent))).toEqual(
    rules,
  );
  expect([...complaints, ...other.complaints]).toEqual([]);
  await page.close();
  await other.page.close();
});

test('filters, ways of holding and schemes leave out what is not asked for', async () => {
  const { page } = await openReport(browser, report, 'drawer=true&scale=css&zoom=0.3');
  const severities = () =>
    page.$$eval('.row .sign', (all) => all.map((sign) => sign.getAttribute('aria-label')));
  expect(new Set(await severities())).toEqual(new Set(['error', 'notice']));
  await page.click('.counts button[title="Leave out errors"]');
  await drawn(page);
  expect(await severities()).not.toContain('error');
  expect(await page.$('.mark.error')).toBeNull();
  const names = async () => (await panes(page)).map(({ name }) => name);
  expect((await names()).filter((name) => name.includes('landscape')).length).toBe(4);
  await page.keyboard.press('t');
  await page.keyboard.press('l');
  await drawn(page);
  expect(await names()).toEqual(['ios-phone-390', 'ios-tablet-820', 'windows-laptop-1366']);
  await page.keyboard.press('t');
  await drawn(page);
  expect(await names()).toEqual([
    'ios-phone-390:landscape',
    'ios-tablet-820:landscape',
    'windows-laptop-1366',
  ]);
  await page.close();
});

test('no fault that a check of accessibility finds: light, dark, in the hand, with a finding and with sheets open', async () => {
  const axe = await readFile(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
  const { findings } = await readManifest(run);
  const views = [
    { address: '', options: {} },
    { address: `finding=${findings[0]!.id}`, options: { scheme: 'dark' } },
    { address: `finding=${findings[0]!.id}&drawer=true`, options: { width: 390, height: 844 } },
    { address: 'as=print', options: { waitFor: '.print' } },
  ];
  for (const { address: where, options } of views) {
    const { page } = await openReport(browser, report, where, options);
    const faults = async () => {
      await page.evaluate(axe);
      const { violations } = await page.evaluate(() =>
        (globalThis as unknown as { axe: { run(): Promise<{ violations: Violation[] }> } }).axe.run(),
      );
      return violations
        .filter(({ impact }) => impact === 'serious' || impact === 'critical')
        .map(({ id, nodes }) => `${where} ${id}: ${nodes[0]!.html.slice(0, 160)}`);
    };
    expect(await faults()).toEqual([]);
    if (where === '') {
      await page.keyboard.press('?');
      await page.waitForSelector('[role="dialog"]');
      expect(await faults()).toEqual([]);
      await page.keyboard.press('Escape');
      await page.waitForFunction(() => document.querySelector('[role="dialog"]') === null);
      await page.click('.pane [aria-label^="Facts of"]');
      await page.waitForSelector('[role="dialog"] .facts');
      expect(await faults()).toEqual([]);
    }
    await page.close();
  }
});

interface Violation {
  readonly id: string;
  readonly impact: string;
  readonly nodes: readonly { readonly html: string }[];
}

test('in the hand there is one pane at a time and nothing is wider than the screen', async () => {
  const { page, complaints } = await openReport(browser, report, '', { width: 390, height: 844 });
  const seen = await page.$$eval(
    '.pane',
    (all) =>
      all.filter((pane) => {
        const { left, right } = pane.getBoundingClientRect();
        return right > 20 && left < 370;
      }).length,
  );
  expect(seen).toBe(1);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
  expect(await page.$('.drawer.folded')).not.toBeNull();
  expect(complaints).toEqual([]);
  await page.close();
});

test('prints every page of the site, and by the browser the page that is shown', async () => {
  const { page } = await openReport(browser, report, 'as=print', { waitFor: '.print' });
  expect(await page.$$eval('.print article h2', (all) => all.length)).toBe(2);
  await page.close();
  const shown = await openReport(browser, report, 'page=fares');
  await shown.page.emulateMediaType('print');
  await shown.page.evaluate(() => dispatchEvent(new Event('beforeprint')));
  await drawn(shown.page);
  const printed = await shown.page.$$eval('.print article .soft', (all) => all[0]!.textContent);
  expect(printed).toContain('fares.html');
  expect(await shown.page.$eval('.report', (element) => getComputedStyle(element).display)).toBe('none');
  await shown.page.close();
  const pdf = join(temp.path, 'told.pdf');
  expect(await isoptic(['report', run, '--as', 'pdf', '--out', pdf])).toMatchObject({
    status: 0,
    stderr: '',
  });
  expect((await readFile(pdf)).subarray(0, 5).toString()).toBe('%PDF-');
});

test('one file that shows its pictures wherever it is', async () => {
  const single = join(temp.path, 'alone.html');
  const { status } = await isoptic(['report', run, '--as', 'html', '--single-file', '--out', single]);
  expect(status).toBe(0);
  const { page, complaints } = await openReport(browser, single);
  await page.waitForFunction(() =>
    [...document.querySelectorAll<HTMLImageElement>('.pane img')].some(
      ({ naturalWidth }) => naturalWidth > 0,
    ),
  );
  expect(await page.$eval('.pane img', (picture) => picture.src.slice(0, 10))).toBe('data:image');
  expect(complaints).toEqual([]);
  await page.close();
});

test('whatever pages are called and say stays text', async () => {
  const evil = `</script><img src=x onerror=alert(1)> "'&<!-- \u202egnp.exe \u0000\u0007 ${'w'.repeat(10_000)}`;
  const hostile = {
    ...findingOf(PAGES[0]!, 'error', [12, 30]),
    selector: evil,
    message: evil,
    words: evil,
    details: [evil],
    related: [evil],
    cause: {
      name: 'fixed-width' as const,
      message: evil,
      selector: evil,
      declaration: { property: evil, value: evil, selector: evil, source: evil },
      proven: true,
    },
  };
  const manifest = runOf([hostile]);
  for (const page of manifest.pages) page.title = evil;
  for (const render of manifest.renders) render.notes.push(evil);
  const folder = join(temp.path, 'hostile');
  await isoptic([
    'check',
    'demo/as-found/index.html',
    '--at',
    '300x300',
    '--shots',
    'none',
    '--fail-on',
    'never',
    '--out',
    folder,
  ]);
  await writeFile(join(folder, 'run.json'), JSON.stringify(manifest));
  expect((await isoptic(['report', folder, '--as', 'html'])).status).toBe(0);
  const { page, complaints } = await openReport(
    browser,
    join(folder, 'report.html'),
    `finding=${hostile.id}`,
  );
  expect(await page.$$eval('img[src="x"], [onerror]', (all) => all.length)).toBe(0);
  expect(await page.$eval('.tray-head p', (element) => element.textContent)).toBe(
    evil.replace('\u0000', '\u0000'),
  );
  await page.click(`[aria-label="Facts of ${NAMES[0]!}"]`);
  await page.waitForSelector('[role="dialog"]');
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(1280);
  expect(complaints).toEqual([]);
  await page.close();
});

test('the ruler along the bottom says at which widths an opened finding shows', async () => {
  const { findings } = await readManifest(run);
  const finding = findings.find(({ rule }) => rule === 'page-overflow')!;
  const { page } = await openReport(browser, report, `finding=${finding.id}&page=${finding.page}`);
  await page.waitForSelector('.width.error');
  const marked = await page.$$eval('.width.error', (all) =>
    all.map((element) => Number((element as HTMLElement).dataset['width'])),
  );
  const { profiles } = await readManifest(run);
  const shown = finding.seen.map(({ profile }) => profiles.find(({ name }) => name === profile)!.width);
  expect(marked).toEqual([...new Set(shown)].sort((a, b) => a - b));
  await page.close();
});

test('against an earlier run, new findings are told from known ones', async () => {
  const before = join(temp.path, 'before');
  const args = ['check', 'demo/as-found/index.html', '--on', 'ios-phone-390', '--shots', 'none'];
  await isoptic([...args, '--fail-on', 'never', '--out', before]);
  const alone = join(temp.path, 'against.html');
  const told = await isoptic([
    'report',
    run,
    '--as',
    'html',
    '--single-file',
    '--against',
    before,
    '--out',
    alone,
  ]);
  expect(told.status).toBe(0);
  const { findings } = await readManifest(before);
  const known = new Set(findings.map(({ id }) => id));
  const { page } = await openReport(browser, alone, 'age=new&search=px');
  const all = (await readManifest(run)).findings.filter(({ waived }) => !waived);
  const rows = await page.$$eval('.row', (list) => list.length);
  expect(rows).toBeGreaterThan(0);
  expect(rows).toBeLessThanOrEqual(all.filter(({ id }) => !known.has(id)).length);
  const numbers = await page.$$eval('.row .number', (list) =>
    list.map((element) => Number(element.textContent)),
  );
  await page.evaluate(() => (location.hash = 'age=known&search=px'));
  await drawn(page);
  const others = await page.$$eval('.row .number', (list) =>
    list.map((element) => Number(element.textContent)),
  );
  expect(others.length).toBeGreaterThan(0);
  expect(others.filter((number) => numbers.includes(number))).toEqual([]);
  await page.close();
});

test('a picture that is gone is said to be gone', async () => {
  const folder = join(temp.path, 'gone');
  await isoptic([
    'check',
    'demo/as-found/index.html',
    '--at',
    '400x600',
    '--fail-on',
    'never',
    '--out',
    folder,
  ]);
  const { renders } = await readManifest(folder);
  await rm(join(folder, renders[0]!.shots.full!));
  const { page } = await openReport(browser, join(folder, 'report.html'));
  await page.waitForSelector('.no-picture');
  expect(await page.$eval('.no-picture', (element) => element.textContent)).toContain('400x600.full.png');
  await page.close();
});
