import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { isoptic, manifestOf, serve, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let server: Awaited<ReturnType<typeof serve>>;
const head = '<!doctype html><meta name="viewport" content="width=device-width"><title>P</title>';

beforeAll(async () => {
  temp = await temporaryFolder();
  server = await serve((request, response) => {
    const path = (request.url ?? '/').split('?')[0];
    const html = (body: string) => response.writeHead(200, { 'content-type': 'text/html' }).end(head + body);
    const phone = request.headers['user-agent']?.includes('iPhone') === true;
    if (path === '/old') response.writeHead(301, { location: '/older' }).end();
    else if (path === '/older') response.writeHead(302, { location: '/page?token=s3cret' }).end();
    else if (path === '/page') {
      html(
        '<link rel="stylesheet" href="/gone.css?key=s3cret"><img src="/gone.png" alt=""><script>console.error("lamp", 3); setTimeout(() => { throw new Error("no wick") })</script><p>Text.</p>',
      );
    } else if (path === '/by-agent')
      html(phone ? '<ul><li>small</li></ul>' : '<table><tr><td>large</td></tr></table>');
    else if (path === '/by-address' && phone) response.writeHead(302, { location: '/m' }).end();
    else if (path === '/by-address' || path === '/m') html('<p>Same.</p>');
    else response.writeHead(404).end();
  });
});
afterAll(async () => {
  await server.close();
  await temp.dispose();
});

const check = (path: string, out: string) =>
  isoptic([
    'check',
    server.origin + path,
    '--on',
    'windows-laptop-1366,ios-phone-390',
    '--json',
    '--shots',
    'none',
    '--out',
    join(temp.path, out),
  ]);

test('redirects, failures, errors, requests and bytes are told; what is missing is a finding', async () => {
  const outcome = await check('/old', 'told');
  expect(outcome.status).toBe(1);
  const manifest = manifestOf(outcome);
  const { delivery, finalUrl } = manifest.renders[0]!;
  expect(delivery.redirects).toEqual([
    { url: `${server.origin}/old`, status: 301 },
    { url: `${server.origin}/older`, status: 302 },
  ]);
  expect(finalUrl).toBe(`${server.origin}/page`);
  expect(delivery.contentType).toBe('text/html');
  expect(delivery.failures.map(({ kind, status }) => [kind, status]).sort()).toEqual([
    ['image', 404],
    ['stylesheet', 404],
  ]);
  expect(delivery.consoleErrors).toEqual(['lamp 3']);
  expect(delivery.pageErrors).toEqual(['Error: no wick']);
  expect(delivery.requests['image']).toMatchObject({ count: 1 });
  expect(delivery.requests['document']!.bytes).toBeGreaterThan(100);
  expect(delivery.timing!.waitMs).toBeGreaterThanOrEqual(0);
  expect(manifest.findings.map(({ rule, severity, seen }) => [rule, severity, seen.length])).toEqual([
    ['missing-resource', 'error', 2],
  ]);
  expect(manifest.findings[0]!.message).toContain('1 style sheet and 1 picture did not come');
});

test('what stands in queries is not written down', async () => {
  for (const file of ['run.json', 'report.html'])
    expect(await readFile(join(temp.path, 'told', file), 'utf8')).not.toContain('s3cret');
});

test('a profile that is served another document, or led to another address, is noted', async () => {
  const notes = async (path: string, out: string) =>
    manifestOf(await check(path, out)).renders.map((render) => render.notes);
  expect(await notes('/by-agent', 'agent')).toEqual([
    [],
    ['was served another document than windows-laptop-1366'],
  ]);
  expect(await notes('/by-address', 'address')).toEqual([
    [],
    [`was led to another address than windows-laptop-1366: ${server.origin}/m`],
  ]);
});
