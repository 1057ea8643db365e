import { readdir, writeFile } from 'node:fs/promises';
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import {
  descendants,
  isoptic,
  isRunning,
  manifestOf,
  readManifest,
  serve,
  temporaryFolder,
  until,
} from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let server: Awaited<ReturnType<typeof serve>>;
const page = (body: string) =>
  `<!doctype html><meta name="viewport" content="width=device-width"><title>Page</title>${body}`;

const PAGES: Record<string, string> = {
  '/good': page('<p>Good.</p>'),
  '/alert': page('<p>Asks.</p><script>alert(1); confirm(2); prompt(3);</script>'),
  '/alerts': page('<script>for (;;) alert("again")</script>'),
  '/leave': page(
    '<p>Stay.</p><script>addEventListener("beforeunload", (event) => { event.preventDefault(); event.returnValue = "x"; })</script>',
  ),
  '/loop': page('<p>Busy.</p><script>addEventListener("load", () => { for (;;); })</script>'),
  '/popup': page('<p>Pops.</p><script>for (let i = 0; i < 5; i++) open("/good")</script>'),
  '/no-picture': page('<h1>Words</h1><img src="/never.png" alt="" width="90" height="60">'),
  '/no-style': page('<link rel="stylesheet" href="/never.css"><h1>Words</h1>'),
  '/moves': page('<script>setTimeout(() => { location.href = "/good" }, 50)</script>'),
};

beforeAll(async () => {
  temp = await temporaryFolder();
  server = await serve((request, response) => {
    const path = (request.url ?? '/').split('?', 1)[0]!;
    if (path === '/around') response.writeHead(302, { location: '/around' }).end();
    else if (path.startsWith('/never')) return;
    else if (path === '/file')
      response
        .writeHead(200, {
          'content-disposition': 'attachment; filename=a.zip',
          'content-type': 'application/zip',
        })
        .end('x');
    else if (path === '/500')
      response.writeHead(500, { 'content-type': 'text/html' }).end(page('<p>Broken engine room.</p>'));
    else if (PAGES[path] === undefined)
      response.writeHead(404, { 'content-type': 'text/html' }).end(page('<p>No such pier.</p>'));
    else response.writeHead(200, { 'content-type': 'text/html' }).end(PAGES[path]);
  });
});
afterAll(async () => {
  await server.close();
  await temp.dispose();
});

let runs = 0;
const check = async (paths: readonly string[], ...more: string[]) =>
  isoptic([
    'check',
    ...paths,
    '--at',
    '600x400',
    '--shots',
    'none',
    '--json',
    '--out',
    join(temp.path, `run-${++runs}`),
    ...more,
  ]);

async function closedPort(): Promise<number> {
  const probe = createServer();
  await new Promise<void>((resolve) => probe.listen(0, '127.0.0.1', resolve));
  const { port } = probe.address() as AddressInfo;
  await new Promise((resolve) => probe.close(resolve));
  return port;
}

test('what can not be loaded is reported with its reason, and the others go on', async () => {
  const port = await closedPort();
  const urls = [
    `http://127.0.0.1:${port}/`,
    `${server.origin}/around`,
    `${server.origin}/never`,
    `${server.origin}/file`,
    `${server.origin}/good`,
  ];
  const outcome = await check(urls, '--timeout', '4');
  expect(outcome.status).toBe(3);
  const manifest = manifestOf(outcome);
  expect(manifest.renders.map((render) => render.error?.code ?? 'ok')).toEqual([
    'connection-refused',
    'too-many-redirects',
    'timeout',
    'no-document',
    'ok',
  ]);
  expect(manifest.summary).toMatchObject({ renders: 5, failed: 4 });
  expect(manifest.renders[0]!.error!.message).toContain('is the server running?');
});

test('404 and 500 are rendered and reported as such', async () => {
  const outcome = await check([`${server.origin}/nowhere`, `${server.origin}/500`]);
  expect(outcome.status).toBe(1);
  const manifest = manifestOf(outcome);
  expect(manifest.renders.map((render) => [render.status, render.httpStatus])).toEqual([
    ['ok', 404],
    ['ok', 500],
  ]);
  expect(manifest.findings.map((finding) => [finding.rule, finding.severity])).toEqual([
    ['http-error', 'error'],
    ['http-error', 'error'],
  ]);
});

test('dialogs, pop-ups and pages that do not want to be left hold nothing up', async () => {
  const outcome = await check(
    ['/alert', '/leave', '/popup', '/moves', '/good'].map((path) => server.origin + path),
    '--timeout',
    '10',
  );
  const manifest = manifestOf(outcome);
  expect(manifest.renders.map((render) => render.error)).toEqual([null, null, null, null, null]);
  expect(outcome.status).toBe(0);
  expect(manifest.renders[0]!.notes).toEqual(['3 dialogs answered']);
  expect(manifest.renders[3]!.finalUrl).toBe(`${server.origin}/good`);
});

test('endless dialogs and an endless loop are bounded by the time limit, and the others go on', async () => {
  const outcome = await check(
    ['/alerts', '/loop', '/good'].map((path) => server.origin + path),
    '--timeout',
    '6',
  );
  expect(outcome.status).toBe(3);
  const manifest = manifestOf(outcome);
  expect(manifest.renders.map((render) => render.error?.code ?? 'ok')).toEqual(['timeout', 'timeout', 'ok']);
  expect(manifest.renders[0]!.error!.message).toMatch(/It opened \d+ dialogs/);
});

test('a browser that is killed in the middle of a run is started again, and no render is lost', async () => {
  const out = join(temp.path, 'killed');
  const urls = Array.from({ length: 12 }, (_, i) => `${server.origin}/good?${i}`);
  let killed = 0;
  const outcome = await isoptic(['check', ...urls, '--at', '600x400', '--out', out], {
    during: async (child) => {
      await until(async () => (await readdir(join(out, 'shots')).catch(() => [])).length >= 2);
      const [browser] = (await descendants(child.pid!)).filter(({ command }) =>
        command.includes('--remote-debugging-pipe'),
      );
      process.kill(browser!.pid, 'SIGKILL');
      killed = browser!.pid;
    },
  });
  expect(killed).toBeGreaterThan(0);
  expect(outcome.status).toBe(0);
  const manifest = await readManifest(out);
  expect(manifest.renders.filter((render) => render.status === 'ok')).toHaveLength(12);
});

test('Ctrl-C keeps what is finished, writes the run, and leaves no process behind', async () => {
  const out = join(temp.path, 'interrupted');
  const urls = [
    ...Array.from({ length: 4 }, (_, i) => `${server.origin}/good?${i}`),
    ...Array.from({ length: 30 }, (_, i) => `${server.origin}/never?${i}`),
  ];
  let family: { pid: number }[] = [];
  const outcome = await isoptic(['check', ...urls, '--at', '600x400', '--out', out], {
    during: async (child) => {
      await until(async () => (await readdir(join(out, 'shots')).catch(() => [])).length >= 3);
      family = await descendants(child.pid!);
      child.kill('SIGINT');
    },
  });
  expect(outcome.status).toBe(130);
  const manifest = await readManifest(out);
  expect(manifest.interrupted).toBe(true);
  expect(manifest.renders.filter((render) => render.status === 'ok').length).toBeGreaterThanOrEqual(3);
  expect(
    manifest.renders.filter((render) => render.error?.code === 'interrupted').length,
  ).toBeGreaterThanOrEqual(28);
  expect(await readdir(out)).toContain('report.html');
  expect(family.length).toBeGreaterThan(0);
  await until(() => family.every(({ pid }) => !isRunning(pid)), 10_000);
});

test('a page one of whose pictures or style sheets never comes is rendered with what is there, and that is said', async () => {
  const paths = ['/no-picture', '/no-style'];
  const outcome = await check(
    paths.map((path) => server.origin + path),
    '--shots',
    'fold,full',
    '--timeout',
    '10',
  );
  const { renders } = manifestOf(outcome);
  expect(renders.map(({ status, shots }) => [status, Object.keys(shots)])).toEqual([
    ['ok', ['fold', 'full']],
    ['ok', ['fold', 'full']],
  ]);
  for (const [i, file] of ['never.png', 'never.css'].entries())
    expect(renders[i]!.notes).toContain(
      `the load event had not come after 5 s; still waited for: ${server.origin}/${file}`,
    );
});

test('a redirect off the site is followed and told', async () => {
  const other = await serve((_, response) => {
    response.writeHead(200, { 'content-type': 'text/html' }).end(page('<p>Another harbour.</p>'));
  });
  const away = await serve((_, response) => {
    response.writeHead(302, { location: `${other.origin}/pier` }).end();
  });
  const [render] = manifestOf(await check([`${away.origin}/`])).renders;
  await Promise.all([other.close(), away.close()]);
  expect(render!.notes).toContain(`redirected to another site, ${other.origin}/pier`);
  expect(render!.delivery.redirects).toEqual([{ url: `${away.origin}/`, status: 302 }]);
});

test('a document that is broken everywhere is still a page', async () => {
  await writeFile(
    join(temp.path, 'broken.html'),
    '<div><p><table><b>unclosed\0 &#xFFFFFF; <svg><rect></div>',
  );
  const outcome = await isoptic(
    ['check', 'broken.html', '--at', '600x400', '--shots', 'none', '--json', '--out', 'broken-run'],
    { cwd: temp.path },
  );
  expect(manifestOf(outcome).renders[0]!.status).toBe('ok');
});
