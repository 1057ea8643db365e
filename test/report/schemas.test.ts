import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import type { Ajv } from 'ajv';
import { validateXML } from 'xmllint-wasm';
import { FORMATS } from '../../src/report/formats.js';
import { findingOf, PAGES, runOf } from '../support/manifest.js';

/** A finding with everything that a format may tell of it. */
const caused = {
  ...findingOf(PAGES[0]!, 'error', [12, 30]),
  message: 'It says <b> & “\u0007x”.',
  cause: {
    name: 'fixed-width' as const,
    message: 'It is 500 px wide.',
    selector: 'div',
    declaration: { property: 'width', value: '500px', selector: '.fares', source: 'css/a b.css:63' },
    proven: true,
  },
};
const waived = { ...caused, id: 'w', waived: { reason: 'agreed', who: 'Ada', until: '2027-01-01' } };
const run = runOf([caused, findingOf(PAGES[1]!, 'notice', [1]), waived], ['tv-1920']);
const OPTIONS = { failOn: 'error', run: '.' } as const;

test('SARIF is valid against its published schema', async () => {
  const schema: unknown = JSON.parse(
    await readFile(
      createRequire(import.meta.url).resolve('@microsoft/jest-sarif/lib/schemas/sarif-2.1.0-rtm.5.json'),
      'utf8',
    ),
  );
  // CommonJS, both of them.
  const require = createRequire(import.meta.url);
  const Draft04 = require('ajv-draft-04') as new (options: object) => Ajv;
  const ajv = new Draft04({ strict: false, allErrors: true, unicodeRegExp: false });
  (require('ajv-formats') as (to: Ajv) => void)(ajv);
  const validate = ajv.compile(schema as object);
  const log = JSON.parse(String(await FORMATS.sarif.make(run, OPTIONS))) as {
    runs: { results: unknown[] }[];
  };
  validate(log);
  expect(validate.errors).toBeNull();
  expect(log.runs[0]!.results).toHaveLength(3);
  // The check can fail.
  log.runs[0]!.results.push({ level: 'loud' });
  expect(validate(log)).toBe(false);
});

test('JUnit is valid against the schema that build servers read it by', async () => {
  const schema = await readFile('test/fixtures/junit.xsd', 'utf8');
  const xml = String(await FORMATS.junit.make(run, OPTIONS));
  const check = (contents: string) => validateXML({ xml: { fileName: 'report.xml', contents }, schema });
  const { valid, errors } = await check(xml);
  expect([valid, errors]).toEqual([true, []]);
  expect((await check(xml.replace('<testcase', '<test'))).valid).toBe(false);
});
