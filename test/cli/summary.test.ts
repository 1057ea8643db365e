import stringWidth from 'string-width';
import { NO_DELIVERY } from '../../src/core/delivery/delivery.js';
import { columnHeads, profileNames } from '../../src/cli/output/profile-names.js';
import { summaryText } from '../../src/cli/output/summary.js';
import { middleCut, wrapped } from '../../src/cli/output/wrapped.js';
import type { FindingRecord, Manifest } from '../../src/run/manifest.js';

const NAMES = ['android-phone-360', 'ios-phone-390', 'ios-phone-390:landscape', 'ios-tablet-820', 'tv-1920'];
const WIDTHS = [360, 390, 844, 820, 1920];
const PAGES = ['index.html', 'a/rather/long/way/down/to/the/page/of/the/winter/timetable.html'];
const RECT = { x: 0, y: 0, width: 1, height: 1 };

function finding(page: string, severity: FindingRecord['severity'], px: readonly number[]): FindingRecord {
  return {
    id: `box-overflow-${page}-${severity}`,
    rule: 'box-overflow',
    family: 'overflow',
    severity,
    page,
    pages: [page],
    key: 'k',
    selector: 'div.fares > a.button',
    related: ['div.fares > a.other'],
    message: 'Text runs 16 px sideways out of the box that is drawn round it, on a 360 px wide screen.',
    details: [],
    words: 'Book now',
    cause: null,
    waived: null,
    seen: px.map((length, i) => ({ page, profile: NAMES[i]!, rect: RECT, by: { axis: 'x', px: length } })),
  };
}

function manifestOf(findings: FindingRecord[], failed: string[] = []): Manifest {
  return {
    format: 'isoptic-run',
    version: 1,
    tool: { name: 'isoptic', version: '0' },
    engine: { name: 'chromium', version: '1' },
    startedAt: '2026-11-23T10:00:00Z',
    durationMs: 1500,
    interrupted: false,
    pages: PAGES.map((source) => ({ id: source, source, title: 'Lantern Isles \u001b[31mFerries' })),
    profiles: NAMES.map((name, i) => ({
      name,
      width: WIDTHS[i]!,
      height: 800,
      dpr: 1,
      orientation: 'portrait',
      platform: name.split('-')[0]!,
      touch: true,
      mobile: true,
      userAgent: '',
    })),
    renders: PAGES.flatMap((page) =>
      NAMES.map((profile) => ({
        page,
        profile,
        status: failed.includes(profile) ? ('failed' as const) : ('ok' as const),
        finalUrl: null,
        httpStatus: null,
        error: failed.includes(profile) ? { code: 'timeout', message: 'It took longer than 30 s.' } : null,
        document: null,
        timings: { loadMs: 0, settleMs: 0, collectMs: 0, analyseMs: 0, shotMs: 0, causeMs: 0 },
        shots: {},
        notes: [],
        delivery: structuredClone(NO_DELIVERY) as Manifest['renders'][number]['delivery'],
      })),
    ),
    findings,
    waivers: [],
    summary: { renders: 10, failed: 0, errors: 1, warnings: 0, notices: 1, waived: 0 },
  };
}
const told = (manifest: Manifest, options = {}) =>
  summaryText(manifest, 'run/report.html', { columns: 80, notices: false, ...options });

test('a matrix first, by the gravest of each render, and told apart without colour', () => {
  const text = told(
    manifestOf(
      [finding('index.html', 'error', [5, 6]), finding('index.html', 'notice', [1, 1, 1])],
      ['tv-1920'],
    ),
  );
  expect(text.split('\n').slice(0, 5)).toEqual([
    `${'px wide'.padEnd(50)}   360   390   844   820  1920`,
    `${'index.html'.padEnd(50)}     E     E     n     ·     F`,
    expect.stringMatching(/^a\/rather.*…\S+timetable\.html +· +· +· +· +F$/) as string,
    '',
    'F failed   E error   n notice   · clean',
  ]);
});

test('errors and warnings with element, px, why and where; notices by rule unless they are asked for', () => {
  const manifest = manifestOf([
    finding('index.html', 'error', [12, 30]),
    finding(PAGES[1]!, 'notice', [1, 1, 1, 1, 1]),
  ]);
  const text = told(manifest);
  expect(text).toContain('  error  box-overflow  div.fares > a.button “Book now”  and 1 like it\n');
  expect(text).toContain('on 2 of 5 profiles: android-phone-360 (12 px), ios-phone-390 (30 px)');
  expect(text).toMatch(/Notices \(--notices lists them\)\n {2}box-overflow {2}1: /);
  expect(text).not.toContain('notice  box-overflow');
  const listed = told(manifest, { notices: true });
  expect(listed).toContain('  notice  box-overflow');
  expect(listed).toContain('on all 5 profiles (1 px)');
});

test.each([40, 80, 110])('no line is wider than %i columns', (columns) => {
  const long = {
    ...finding('index.html', 'error', [1, 2, 3]),
    selector: `main > ${'very-long-name-'.repeat(20)}`,
  };
  const lines = told(manifestOf([long]), { columns }).split('\n');
  expect(lines.filter((line) => stringWidth(line) > columns)).toEqual([]);
  expect(lines.join('\n')).not.toContain('\u001b[31m');
});

test('what names of profiles share is said once', () => {
  const named = (...names: string[]) => profileNames(names.map((name) => ({ name })));
  expect(named('ios-phone-375', 'ios-phone-390:landscape', 'tv-1920')).toBe(
    'ios-phone 375, 390:landscape; tv-1920',
  );
  expect(named('ios-phone-375', 'tv-1920')).toBe('ios-phone-375, tv-1920');
  expect(profileNames([{ name: '390x844@3', aside: '4 px' }])).toBe('390x844@3 (4 px)');
});

test('heads of columns differ: widths, else platforms with them, else numbers', () => {
  const heads = (...profiles: [string, number][]) =>
    columnHeads(profiles.map(([platform, width]) => ({ name: `${platform}-${width}`, platform, width })));
  expect(heads(['ios', 390], ['tv', 1920])).toEqual(['390', '1920']);
  expect(heads(['ios', 390], ['android', 390])).toEqual(['i390', 'a390']);
  expect(heads(['ios', 390], ['ipados', 390])).toEqual(['#1', '#2']);
});

test('a number stays with its unit where a line breaks, and both ends of a cut name are seen', () => {
  expect(wrapped('- ', 'aaaa bbbb 76 px and 19 × 12 px', 14)).toEqual([
    '- aaaa bbbb',
    '  76 px and',
    '  19 × 12 px',
  ]);
  expect(middleCut('production/index.html', 12)).toBe('produc….html');
});
