import { parse as parseCsv } from 'csv-parse/sync';
import { XMLParser } from 'fast-xml-parser';
import type { Log } from 'sarif';
import { FORMATS, parseFormats, type FormatName } from '../../src/report/formats.js';
import type { FindingRecord } from '../../src/run/manifest.js';
import { findingOf, NAMES, PAGES, runOf } from '../support/manifest.js';

const OPTIONS = { failOn: 'error', run: '.' } as const;
const told = async (format: FormatName, ...of: Parameters<(typeof FORMATS)['csv']['make']>) =>
  String(await FORMATS[format].make(...of));
const error = findingOf('index.html', 'error', [12, 30]);
const warning = findingOf(PAGES[1]!, 'warning', [4]);
const notice = findingOf('index.html', 'notice', [1, 1, 1]);
const caused: FindingRecord = {
  ...error,
  cause: {
    name: 'fixed-width',
    message: 'It is 500 px wide, whatever room there is; gone without `width: 500px`.',
    selector: 'div',
    proven: true,
    declaration: { property: 'width', value: '500px', selector: 'div', source: 'css/a b.css:63' },
  },
};
const waived: FindingRecord = {
  ...warning,
  id: 'w',
  waived: { reason: 'agreed', who: 'Ada', until: '2027-01-01' },
};

test('csv: one row a sighting, and no cell that a spreadsheet would take for a formula', async () => {
  const hostile = { ...warning, words: '=HYPERLINK("http://x")', message: 'a "b",\nc' };
  const text = await told('csv', runOf([caused, hostile]), OPTIONS);
  const rows: Record<string, string>[] = parseCsv(text, { columns: true });
  expect(rows.map(({ page, profile, width, px, severity }) => [page, profile, width, px, severity])).toEqual([
    ['index.html', NAMES[0], '360', '12', 'error'],
    ['index.html', NAMES[1], '390', '30', 'error'],
    [PAGES[1], NAMES[0], '360', '4', 'warning'],
  ]);
  expect(rows[0]!['source']).toBe('css/a b.css:63');
  expect(rows[2]).toMatchObject({ words: `'=HYPERLINK("http://x")`, message: 'a "b",\nc' });
});

test('junit: a case a page and profile, failing from a severity on, in error where it was not rendered', async () => {
  const hostile = { ...caused, selector: 'a > b]]>', message: 'It says <b> & “\u0007x”.' };
  const run = runOf([hostile, warning, waived], ['tv-1920']);
  const read = async (failOn: 'error' | 'warning') => {
    const xml = new XMLParser({ ignoreAttributes: false }).parse(
      await told('junit', run, { ...OPTIONS, failOn }),
    ) as {
      testsuites: {
        '@_tests': string;
        '@_failures': string;
        '@_errors': string;
        testsuite: { testcase: { '@_name': string; failure?: Record<string, string>; error?: object }[] }[];
      };
    };
    return xml.testsuites;
  };
  const { testsuite, ...sums } = await read('error');
  expect(sums).toMatchObject({ '@_tests': '10', '@_failures': '2', '@_errors': '2' });
  const [first] = testsuite[0]!.testcase;
  expect(first!.failure!['#text']).toContain(
    'error box-overflow a > b]]>: It says <b> & “ x”. It is 500 px wide',
  );
  expect(testsuite[0]!.testcase.map((entry) => entry.error !== undefined)).toEqual([
    false,
    false,
    false,
    false,
    true,
  ]);
  expect((await read('warning'))['@_failures']).toBe('3');
});

test('sarif: results with the place of the declaration, their fingerprints, and what is waived suppressed', async () => {
  const log = JSON.parse(await told('sarif', runOf([caused, waived, notice]), OPTIONS)) as Log;
  const [run] = log.runs;
  expect(log.version).toBe('2.1.0');
  expect(run!.tool.driver.rules!.map(({ id }) => id)).toEqual(['box-overflow']);
  const [first, second, third] = run!.results!;
  expect(first!.locations).toEqual([
    {
      physicalLocation: { artifactLocation: { uri: 'css/a%20b.css' }, region: { startLine: 63 } },
      logicalLocations: [{ fullyQualifiedName: error.selector, kind: 'element' }],
    },
  ]);
  expect([first!.level, first!.ruleIndex, first!.partialFingerprints]).toEqual([
    'error',
    0,
    { 'finding/v1': error.id },
  ]);
  expect(second!.suppressions).toEqual([{ kind: 'external', justification: 'agreed' }]);
  expect(second!.locations![0]!.physicalLocation!.artifactLocation!.uri).toBe(PAGES[1]);
  expect(third!.level).toBe('note');
});

test('markdown: counts, a matrix, the worst first, and nothing of a page is markup', async () => {
  const hostile = {
    ...caused,
    selector: 'a.`b`',
    message: 'The text “<img src=x> | [x](y) @ada *z*\n# h” is cut off.',
  };
  const text = await told('markdown', runOf([notice, waived, hostile], ['tv-1920']), OPTIONS);
  const lines = text.split('\n');
  expect(lines[0]).toContain('on 2 pages on 5 profiles');
  expect(lines.slice(2, 6)).toEqual([
    '| page | 360 | 390 | 844 | 820 | 1920 |',
    '| --- | :-: | :-: | :-: | :-: | :-: |',
    '| index.html | E | E | n | · | F |',
    '| a/rather/long/way/down/to/the/page/of/the/winter/timetable.html | · | · | · | · | F |',
  ]);
  const [first, second] = lines.filter((line) => line.startsWith('- '));
  expect(first).toBe('- **error** box-overflow on index.html: `` a.`b` ``');
  expect(second).toContain('**notice**');
  expect(text).toContain('“\\<img src=x\\> \\| \\[x\\]\\(y\\) @\u200bada \\*z\\* \\# h” is cut off.');
  expect(text).toContain('gone without `width: 500px`. (css/a b.css:63)');
  expect(await told('markdown', runOf([]), OPTIONS)).toContain('Nothing was found.');
});

test('a format that there is not is told with those that there are', () => {
  expect(parseFormats('csv, html,csv', '--as')).toEqual(['csv', 'html']);
  expect(() => parseFormats('csv,docx', '--as')).toThrow(/no format "docx"/);
});
