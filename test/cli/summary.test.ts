import stringWidth from 'string-width';
import { columnHeads, profileNames } from '../../src/report/profile-names.js';
import { summaryText } from '../../src/cli/output/summary.js';
import { middleCut, wrapped } from '../../src/cli/output/wrapped.js';
import type { Manifest } from '../../src/run/manifest.js';
import { findingOf, PAGES, runOf } from '../support/manifest.js';

const told = (manifest: Manifest, options = {}) =>
  summaryText(manifest, 'run/report.html', { columns: 80, notices: false, ...options });

test('a matrix first, by the gravest of each render, and told apart without colour', () => {
  const text = told(
    runOf(
      [findingOf('index.html', 'error', [5, 6]), findingOf('index.html', 'notice', [1, 1, 1])],
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
  const manifest = runOf([
    findingOf('index.html', 'error', [12, 30]),
    findingOf(PAGES[1]!, 'notice', [1, 1, 1, 1, 1]),
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
    ...findingOf('index.html', 'error', [1, 2, 3]),
    selector: `main > ${'very-long-name-'.repeat(20)}`,
  };
  const lines = told(runOf([long]), { columns }).split('\n');
  expect(lines.filter((line) => stringWidth(line) > columns)).toEqual([]);
  expect(lines.join('\n')).not.toContain('\u001b[31m');
});

test('what names of profiles share is said once', () => {
  const named = (...names: string[]) => profileNames(names.map((name) => ({ name })));
  expect(named('ios-phone-375', 'ios-phone-390:landscape', 'tv-1920')).toBe(
    'ios-phone 375, 390:landscape; tv-1920',
  );
  expect(named('ios-phone-375', 'tv-1920')).toBe('ios-phone-375, tv-1920');
  expect(named('kiosk', 'kiosk-1080', 'kiosk-720')).toBe('kiosk; kiosk 1080, 720');
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
