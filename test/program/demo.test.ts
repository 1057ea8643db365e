import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import puppeteer from 'puppeteer-core';
import { findBrowser } from '../../src/engine/chromium/find-browser.js';
import { demoTruth } from '../support/demo-truth.js';
import { isoptic, manifestOf, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let truth: Awaited<ReturnType<typeof demoTruth>>;

beforeAll(async () => {
  temp = await temporaryFolder();
  truth = await demoTruth();
});
afterAll(() => temp.dispose());

test('the list of planted faults covers the families, and its widths fit its profiles', () => {
  expect(truth.length).toBeGreaterThanOrEqual(14);
  expect(new Set(truth.map((fault) => fault.family)).size).toBe(4);
  for (const { profiles, widths } of truth) {
    for (const profile of profiles) {
      const width = Number(/\d+$/.exec(profile)![0]);
      expect(width).toBeGreaterThanOrEqual(widths.min);
      expect(width).toBeLessThanOrEqual(widths.max);
    }
  }
});

test('every planted fault is found by its rule, with the right element on exactly the right profiles, and nothing else', async () => {
  const manifest = manifestOf(
    await isoptic([
      'check',
      'demo/as-found',
      '--all',
      '--json',
      '--shots',
      'none',
      '--out',
      join(temp.path, 'found'),
    ]),
  );
  const found = manifest.findings;
  // Two are there on a turned phone only.
  const planted = truth.filter((fault) => fault.profiles.length > 0);
  expect(found).toHaveLength(planted.length);

  const browserOf = await findBrowser(undefined);
  const browser = await puppeteer.launch({
    executablePath: browserOf.executable,
    headless: browserOf.shell ? 'shell' : true,
    pipe: true,
    env: { ...process.env, ...browserOf.env },
    args: process.getuid?.() === 0 ? ['--no-sandbox'] : [],
  });
  try {
    const page = await browser.newPage();
    for (const fault of planted) {
      await page.goto(pathToFileURL(join('demo/as-found', fault.page)).href);
      const source = manifest.pages.find((entry) => entry.source === fault.page)!.id;
      const hits = [];
      for (const finding of found.filter((entry) => entry.page === source && entry.rule === fault.rule)) {
        const verdict = await page.evaluate(
          (reported, wanted) => {
            const matches = document.querySelectorAll(reported);
            return { count: matches.length, same: matches[0] === document.querySelector(wanted) };
          },
          finding.selector,
          fault.selector,
        );
        expect(verdict.count).toBe(1);
        if (verdict.same) hits.push(finding.seen.map((seen) => seen.profile));
      }
      expect({ fault: fault.id, hits }).toEqual({ fault: fault.id, hits: [fault.profiles] });
    }
  } finally {
    await browser.close();
  }
});
