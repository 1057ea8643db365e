import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { isoptic, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let page: string;
beforeAll(async () => {
  temp = await temporaryFolder();
  page = join(temp.path, 'index.html');
  await writeFile(
    page,
    '<!doctype html><title>P</title><div style="width:900px;background:#ccc">Boats | *all* day</div>',
  );
});
afterAll(() => temp.dispose());

test('a run is written in other formats in one go, told again later, and put in the place of itself', async () => {
  const out = join(temp.path, 'run');
  const check = [
    'check',
    page,
    '--at',
    '400x700',
    '--shots',
    'none',
    '--report-as',
    'csv,junit',
    '--out',
    out,
  ];
  expect((await isoptic(check)).status).toBe(1);
  expect(await readFile(join(out, 'report.csv'), 'utf8')).toMatch(
    /^page,profile,width,[^]*\nindex\.html,400x700,400,error/,
  );
  expect(await readFile(join(out, 'report.junit.xml'), 'utf8')).toContain(
    '<testsuites name="isoptic" tests="1" failures="1"',
  );

  const told = await isoptic(['report', out, '--as', 'markdown', '--out', '-']);
  expect(told).toMatchObject({ status: 0, stderr: '' });
  expect(told.stdout).toMatch(/^\*\*1 error, 0 warnings, 0 notices\*\* on 1 page on 1 profile\n/);

  const several = await isoptic(['report', out, '--as', 'sarif,csv', '--out', 'reports'], { cwd: temp.path });
  expect(several.stdout).toBe('reports/report.sarif\nreports/report.csv\n');
  expect(JSON.parse(await readFile(join(temp.path, 'reports', 'report.sarif'), 'utf8'))).toMatchObject({
    version: '2.1.0',
  });
  expect((await isoptic([...check, '--replace'])).status).toBe(1);
});

test('what can not be told is refused, with what to do', async () => {
  const refused = async (...args: string[]) => {
    const { status, stderr } = await isoptic(['report', ...args], { cwd: temp.path });
    return `${status} ${stderr}`;
  };
  expect(await refused('run', '--as', 'docx')).toMatch(/^2 .*no format "docx"[^]*markdown/);
  expect(await refused('run', '--as', 'csv,junit', '--out', '-')).toMatch(/^2 .*one format/);
  expect(await refused('run', '--as', 'html', '--out', 'elsewhere.html')).toMatch(/^2 .*pictures/);
  expect(await refused('nowhere', '--as', 'csv')).toMatch(/^2 .*nowhere/);
  expect(await refused('run', '--as', 'junit', '--fail-on', 'never')).toMatch(/^2 .*not a severity/);
  expect(await refused('run', '--as', 'csv', '--out', join(page, 'x.csv'))).toMatch(
    /^2 .*can not be written/,
  );
  const early = await isoptic(['check', page, '--report-as', 'docx', '--out', join(temp.path, 'never')]);
  expect(early.status).toBe(2);
});
