import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Manifest } from '../../src/run/manifest.js';
import { demoTruth } from '../support/demo-truth.js';
import { isoptic, manifestOf, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let truth: Awaited<ReturnType<typeof demoTruth>>;

beforeAll(async () => {
  temp = await temporaryFolder();
  truth = await demoTruth();
});
afterAll(() => temp.dispose());

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
