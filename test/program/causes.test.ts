import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { SourceMapGenerator } from 'source-map-js';
import { isoptic, manifestOf, readManifest, serve, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let server: Awaited<ReturnType<typeof serve>>;

const head = '<!doctype html><meta name="viewport" content="width=device-width"><title>Causes</title>';
const MAP = new SourceMapGenerator({ file: 'built.css' });
MAP.addMapping({
  source: 'src/panel.scss',
  original: { line: 12, column: 2 },
  generated: { line: 1, column: 7 },
});

const FILES: Record<string, [type: string, body: string]> = {
  '/': [
    'text/html',
    `${head}<link rel="stylesheet" href="/built.css"><body style="margin:0"><div class="panel">Winter berths</div>`,
  ],
  '/second': [
    'text/html',
    `${head}<link rel="stylesheet" href="/built.css"><body id="summer" class="page-second" style="margin:0"><div class="panel">Summer berths</div>`,
  ],
  '/built.css': ['text/css', '.panel{width:700px;background:#eef}\n/*# sourceMappingURL=built.css.map */'],
  '/built.css.map': ['application/json', MAP.toString()],
  '/inline': [
    'text/html',
    `${head}<body style="margin:0">\n<style>\n.low {\n  background: #fd8;\n  height: 20px;\n}\n</style>\n<p class="low" style="margin: 0; overflow: hidden; width: 200px">Two lines of text at least, if not three or four of them.</p>`,
  ],
  '/sum': [
    'text/html',
    `${head}<style>body{margin:0}.a{width:100%;padding:0 24px;border:1px solid #888}</style><div class="a">Fares</div>`,
  ],
  '/gap.css': [
    'text/css',
    '.row { display: flex; background: #eef; }\n.berth { flex: 0 0 205px; }\n@media (max-width: 380px) {\n  .row { flex-direction: column; }\n}\n',
  ],
  '/gap': [
    'text/html',
    `${head}<link rel="stylesheet" href="/gap.css"><body style="margin:0"><div class="row"><p class="berth">North</p><p class="berth">South</p></div>`,
  ],
  '/fixed-viewport': ['text/html', '<!doctype html><meta name="viewport" content="width=800"><p>Times</p>'],
  '/row': [
    'text/html',
    `${head}<style>body{margin:0}ul{display:flex;margin:0;padding:0;list-style:none}li{flex:none;width:70px;white-space:nowrap}</style><ul><li>Timetables</li><li>Accessibility</li><li>Fares</li></ul>`,
  ],
  '/cell': [
    'text/html',
    `${head}<style>.g{display:grid}.g p{grid-area:1/1;margin:0}</style><div class="g"><p class="x">Departures today</p><p class="y">Arrivals today</p></div>`,
  ],
  '/locked': [
    'text/html',
    `${head}<style>html{overflow-y:hidden;height:100%}</style><div style="height:1500px"></div><p>Sunday boats sail twice.</p>`,
  ],
  '/own': [
    'text/html',
    `${head}<style>body{margin:0}.w{width:420px;background:#dee}@media (max-width:380px){.wrap{overflow-x:auto}}</style><div class="wrap"><p class="w">Fares</p></div>`,
  ],
  '/margin': [
    'text/html',
    `${head}<style>body{margin:0}.side{float:left;width:300px}.news{margin-left:380px}</style><div class="side">Offices</div><div class="news"><h2>News</h2><p>Timetables</p></div>`,
  ],
  '/two': [
    'text/html',
    `${head}<style>.two{width:500px;min-width:480px;background:#dee}</style><body style="margin:0"><p class="two">Fares</p>`,
  ],
};

beforeAll(async () => {
  temp = await temporaryFolder();
  server = await serve((request, response) => {
    const [type, body] = FILES[request.url!] ?? ['text/plain', ''];
    response.writeHead(200, { 'content-type': type }).end(body);
  });
});
afterAll(async () => {
  await server.close();
  await temp.dispose();
});

let runs = 0;
async function check(paths: readonly string[], ...more: string[]) {
  const out = join(temp.path, `run-${++runs}`);
  const urls = paths.map((path) => server.origin + path);
  const outcome = await isoptic([
    'check',
    ...urls,
    '--at',
    '390x700+mobile',
    '--shots',
    'none',
    '--json',
    '--out',
    out,
    ...more,
  ]);
  return { outcome, out };
}

test('a cause is a declaration that was undone in the live page, with its place in the authored file', async () => {
  const { findings } = manifestOf((await check(['/', '/inline', '/sum'])).outcome);
  expect(findings.map(({ rule, cause }) => [rule, cause?.name, cause?.proven])).toEqual([
    ['page-overflow', 'fixed-width', true],
    ['text-clipped', 'fixed-height', true],
    ['page-overflow', 'percent-plus-padding', true],
  ]);
  expect(findings[0]!.cause!.declaration).toEqual({
    property: 'width',
    value: '700px',
    selector: '.panel',
    source: 'src/panel.scss:12',
  });
  expect(findings[1]!.cause!.declaration).toMatchObject({
    property: 'height',
    value: '20px',
    source: 'inline:5',
  });
  expect(findings[2]!.cause!.message).toContain(
    '100 % + 2 × 24 px padding + 2 × 1 px border = 100 % + 50 px',
  );
});

test('a viewport tag, rules that a media query keeps out, and two declarations together are causes too', async () => {
  const { findings } = manifestOf((await check(['/fixed-viewport', '/gap', '/two'])).outcome);
  expect(findings.map(({ rule, cause }) => [rule, cause?.name])).toEqual([
    ['page-overflow', 'viewport-meta'],
    ['page-overflow', 'media-query-absent'],
    ['page-overflow', 'fixed-width'],
  ]);
  expect(findings[0]!.cause!.message).toContain('`width=800`');
  expect(findings[1]!.cause!.message).toContain('`@media (max-width: 380px)` do not hold at 390 px');
  expect(findings[1]!.cause!.declaration).toMatchObject({
    property: 'flex-direction',
    selector: '.row',
    source: 'gap.css:4',
  });
  expect(findings[2]!.cause!.message).toMatch(/gone without `width: 500px` and without `min-width: 480px`/);
});

test('a width of its own is nearer than a media query that would only make it scroll', async () => {
  const { findings } = manifestOf((await check(['/own'])).outcome);
  expect(findings.map(({ rule, cause }) => [rule, cause?.name, cause?.declaration?.value])).toEqual([
    ['page-overflow', 'fixed-width', '420px'],
  ]);
});

test('a margin that leaves no room is the cause of all that runs out of its block', async () => {
  const { findings } = manifestOf((await check(['/margin'])).outcome);
  expect(findings.map(({ selector, cause }) => [selector, cause?.name, cause?.declaration?.value])).toEqual([
    ['div.news', 'wide-margin', '380px'],
  ]);
  expect(findings[0]!.cause!.message).toContain('takes 380 px of the 390 px');
});

test('what siblings share is undone for all of them; a shared cell and a locked page are causes', async () => {
  const { findings } = manifestOf((await check(['/row', '/cell', '/locked'])).outcome);
  expect(findings.map(({ rule, cause }) => [rule, cause?.name])).toEqual([
    ['text-overlap', 'fixed-width'],
    ['text-overlap', 'positioned'],
    ['unreachable', 'clipped-overflow'],
  ]);
  expect(findings[0]!.cause!.declaration).toMatchObject({ property: 'width', value: '70px', selector: 'li' });
  expect(findings[1]!.cause!.message).toContain('gone with');
});

test('a run that kept its layouts is judged again without a browser, under other settings', async () => {
  const { outcome, out } = await check(['/', '/inline']);
  const before = manifestOf(outcome);
  const config = join(temp.path, 'again.yaml');
  await writeFile(config, 'rules: { text-clipped: off, page-overflow: { severity: notice } }\n');
  const none = { ISOPTIC_BROWSER: '/nowhere/browser' };
  const same = manifestOf(await isoptic(['check', '--again', out, '--json'], { env: none, cwd: temp.path }));
  expect(same.findings).toEqual(before.findings);
  const changed = await isoptic(['check', '--again', out, '--config', config, '--json'], { env: none });
  expect(changed.status).toBe(0);
  expect(manifestOf(changed).findings.map(({ rule, severity }) => [rule, severity])).toEqual([
    ['page-overflow', 'notice'],
  ]);
  expect((await readManifest(out)).summary).toMatchObject({ errors: 0, notices: 1 });
  const without = await check(['/sum'], '--no-layouts');
  const refused = await isoptic(['check', '--again', without.out], { env: none });
  expect(refused.status).toBe(2);
  expect(refused.stderr).toContain('--no-layouts');
});

test("a template's defect is one finding with its pages, also when the run is judged again", async () => {
  const { outcome, out } = await check(['/', '/second']);
  const { findings } = manifestOf(outcome);
  expect(findings.map(({ rule, pages }) => [rule, pages])).toEqual([['page-overflow', ['home', 'second']]]);
  const again = await isoptic(['check', '--again', out, '--json'], { cwd: temp.path });
  expect(manifestOf(again).findings).toEqual(findings);
});

test('waivers in a file: accepted, expired and unused ones are told', async () => {
  const waivers = join(temp.path, 'accepted.yaml');
  const config = join(temp.path, 'waived.yaml');
  await writeFile(config, 'waivers: accepted.yaml\n');
  await writeFile(
    waivers,
    `- { rule: page-overflow, selector: div.panel, reason: new berths in spring, who: Marit, until: 2199-01-01 }
- { rule: covered, reason: none, who: Jon, until: 2199-01-01 }
- { rule: text-clipped, reason: gone, who: Ada, until: 2020-01-01 }
`,
  );
  const { outcome } = await check(['/'], '--config', config);
  expect(outcome.status).toBe(0);
  const manifest = manifestOf(outcome);
  expect(manifest.findings[0]!.waived).toMatchObject({ who: 'Marit' });
  expect(manifest.summary).toMatchObject({ errors: 0, waived: 1 });
  expect(manifest.waivers.map(({ state }) => state)).toEqual(['used', 'unused', 'expired']);
  await writeFile(waivers, '- { rule: covred, reason: x, who: y, until: soon }\n');
  const bad = await check(['/'], '--config', config);
  expect(bad.outcome.status).toBe(2);
  expect(bad.outcome.stderr).toMatch(/accepted\.yaml:1: .*must be one of .*covered/);
});
