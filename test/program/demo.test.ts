import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import puppeteer from 'puppeteer-core';
import { parse } from 'yaml';
import { z } from 'zod';
import { findBrowser } from '../../src/engine/chromium/find-browser.js';
import type { Manifest } from '../../src/run/manifest.js';
import { isoptic, manifestOf, temporaryFolder } from '../support/program.js';

const truthSchema = z.array(
  z.strictObject({
    id: z.string(),
    page: z.string(),
    selector: z.string(),
    family: z.enum(['overflow', 'overlap', 'clipped', 'flow']),
    rule: z.string(),
    widths: z.strictObject({ min: z.number(), max: z.number() }),
    when: z.record(z.string(), z.union([z.string(), z.number()])).optional(),
    profiles: z.array(z.string()),
    sweep: z.array(z.tuple([z.number(), z.number()])).optional(),
    sees: z.string(),
    cause: z.string(),
    repair: z.string(),
  }),
);

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let truth: z.infer<typeof truthSchema>;

beforeAll(async () => {
  temp = await temporaryFolder();
  truth = truthSchema.parse(parse(await readFile('demo/truth.yaml', 'utf8')));
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

test('the planted page overflows begin and end at the widths that the list gives', async () => {
  const planted = truth.filter((fault) => fault.rule === 'page-overflow' && fault.when === undefined);
  const edges = [...new Set(planted.flatMap(({ widths }) => [widths.min, widths.max, widths.max + 1]))];
  // Mobile viewports, whose scroll bars take no room, so that widths are those of the layout.
  const sizes = edges.flatMap((width) => ['--at', `${width}x800+mobile`]);
  const manifest = manifestOf(
    await isoptic([
      'check',
      'demo/as-found',
      '--all',
      '--json',
      '--shots',
      'none',
      '--out',
      join(temp.path, 'edges'),
      ...sizes,
    ]),
  );
  for (const fault of planted) {
    const source = manifest.pages.find((entry) => entry.source === fault.page)!.id;
    const seen = manifest.findings
      .filter((finding) => finding.page === source && finding.rule === 'page-overflow')
      .flatMap((finding) => finding.seen.map(({ profile }) => Number.parseInt(profile, 10)));
    expect({ fault: fault.id, seen: seen.sort((a, b) => a - b) }).toEqual({
      fault: fault.id,
      seen: edges
        .filter((width) => width >= fault.widths.min && width <= fault.widths.max)
        .sort((a, b) => a - b),
    });
  }
});

test('isoptic demo finds nothing on the repaired site, ends with 0 and says where the reports are', async () => {
  const out = join(temp.path, 'demo');
  const outcome = await isoptic(['demo', '--out', out]);
  expect(outcome.status).toBe(0);
  expect(outcome.stdout).toContain(join('demo', 'as-found', 'report.html'));
  const repaired = JSON.parse(await readFile(join(out, 'repaired', 'run.json'), 'utf8')) as Manifest;
  expect(repaired.summary).toEqual({ renders: 36, failed: 0, errors: 0, warnings: 0, notices: 0, waived: 0 });
});

test('our own report passes our own check, on phones and desktops', async () => {
  const report = join(temp.path, 'demo', 'as-found', 'report.html');
  const outcome = await isoptic([
    'check',
    report,
    '--on',
    'ios-phone-390,windows-laptop-1366',
    '--at',
    '1280x800',
    '--at',
    '320x600',
    '--json',
    '--shots',
    'none',
    '--out',
    join(temp.path, 'self'),
  ]);
  expect(manifestOf(outcome).findings).toEqual([]);
  expect(outcome.status).toBe(0);
});
