import { readFile, readdir, writeFile } from 'node:fs/promises';
import type { IncomingMessage } from 'node:http';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { SELF_SIGNED } from '../support/loopback-tls.js';
import { isoptic, manifestOf, serve, temporaryFolder } from '../support/program.js';

const USER = 'purser';
const PASSWORD = 'tide-table-9931';
const TOKEN = 'harbour-token-55281';
const BASIC = `Basic ${Buffer.from(`${USER}:${PASSWORD}`).toString('base64')}`;

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let site: Awaited<ReturnType<typeof serve>>;
let elsewhere: Awaited<ReturnType<typeof serve>>;
let secure: Awaited<ReturnType<typeof serve>>;
let home: string;
const seen: { where: string; path: string; headers: IncomingMessage['headers'] }[] = [];
let signIns = 0;

const page = (body: string) =>
  `<!doctype html><meta name="viewport" content="width=device-width"><title>Crew</title>${body}`;

beforeAll(async () => {
  temp = await temporaryFolder();
  home = join(temp.path, 'home');
  elsewhere = await serve((request, response) => {
    seen.push({ where: 'elsewhere', path: request.url!, headers: request.headers });
    response.writeHead(200, { 'content-type': 'text/css', 'access-control-allow-origin': '*' }).end('p{}');
  });
  secure = await serve((request, response) => {
    // The host is never asked: the browser refuses before it looks for it.
    const mixed = '<link rel="stylesheet" href="http://ferries.invalid/style.css">';
    const html = page(`${request.url === '/mixed' ? mixed : ''}<p>Safe enough.</p>`);
    response.writeHead(200, { 'content-type': 'text/html' }).end(html);
  }, SELF_SIGNED);
  site = await serve((request, response) => {
    const path = request.url!.split('?', 1)[0]!;
    seen.push({ where: 'site', path, headers: request.headers });
    const html = (status: number, body: string, more = {}) =>
      response.writeHead(status, { 'content-type': 'text/html', ...more }).end(page(body));
    if (path.startsWith('/basic')) {
      if (request.headers.authorization !== BASIC) {
        return html(401, '<p>Who are you?</p>', { 'www-authenticate': 'Basic realm="crew"' });
      }
      return html(
        200,
        `<p>Aboard.</p><a href="/basic/deck">Deck</a><script>console.error('${PASSWORD}')</script>`,
      );
    }
    if (path === '/headers')
      return html(200, `<link rel=stylesheet href="${elsewhere.origin}/style.css"><p>Seen.</p>`);
    if (path === '/sign-in') {
      return html(
        200,
        `<form onsubmit="event.preventDefault(); if (this.word.value === '${PASSWORD}') {
           document.cookie = 'crew=signed-in-4711-0815; path=/'; localStorage.setItem('rank', 'first-mate-0815-4711'); location.href = '/bridge' }">
         <input name=word type=password><button>Go aboard</button></form>`,
      );
    }
    if (path === '/bridge') {
      if (!/crew=signed-in/.test(request.headers.cookie ?? '')) return html(403, '<p>Crew only.</p>');
      signIns++;
      return html(
        200,
        '<p id=who></p><script>who.textContent = "The bridge. " + localStorage.getItem("rank")</script>',
      );
    }
    return html(404, '<p>No such pier.</p>');
  });
});
afterAll(async () => {
  await Promise.all([site.close(), elsewhere.close(), secure.close()]);
  await temp.dispose();
});

let runs = 0;
const check = (args: readonly string[], config?: string) => {
  const out = join(temp.path, `run-${++runs}`);
  const run = async () => {
    const file = join(temp.path, `config-${runs}.yaml`);
    await writeFile(file, config ?? '{}');
    const common = ['--at', '600x400', '--shots', 'none', '--json', '--out', out, '--config', file];
    return isoptic(['check', ...args, ...common], {
      env: { CREW_LOGIN: `${USER}:${PASSWORD}`, CREW_WORD: PASSWORD, CREW_TOKEN: TOKEN, XDG_DATA_HOME: home },
    });
  };
  return run().then((outcome) => ({ outcome, out }));
};

/** Everything that a run wrote, as one text. */
async function written(out: string): Promise<string> {
  const files = await readdir(out, { recursive: true, withFileTypes: true });
  const texts = files
    .filter((file) => file.isFile())
    .map(async (file) => {
      const content = await readFile(join(file.parentPath, file.name));
      return (file.name.endsWith('.gz') ? gunzipSync(content) : content).toString('latin1');
    });
  return (await Promise.all(texts)).join('\n');
}

test('credentials open what asks for them, also while links are followed, and are written nowhere', async () => {
  const args = [`${site.origin}/basic`, '--credentials', 'env:CREW_LOGIN', '--follow', '1', '--verbose'];
  const { outcome, out } = await check(args);
  const manifest = manifestOf(outcome);
  expect(manifest.renders.map((render) => render.httpStatus)).toEqual([200, 200]);
  expect(manifest.pages.map(({ source }) => source)).toContain(`${site.origin}/basic/deck`);
  // The page printed the password itself.
  expect(manifest.renders[0]!.delivery.consoleErrors).toEqual(['•••']);
  const everything = (await written(out)) + outcome.stdout + outcome.stderr;
  expect(everything).not.toContain(PASSWORD);
  expect(everything).not.toContain(BASIC.slice(6));
});

test('wrong credentials end as the 401 that they are', async () => {
  await writeFile(join(temp.path, 'wrong.txt'), 'purser:low-tide\n');
  const { outcome } = await check([`${site.origin}/basic`, '--credentials', join(temp.path, 'wrong.txt')]);
  const manifest = manifestOf(outcome);
  expect(manifest.renders[0]).toMatchObject({ status: 'ok', httpStatus: 401 });
  expect(manifest.findings[0]!.message).toContain('401');
  const missing = await check([`${site.origin}/basic`, '--credentials', 'env:NO_SUCH_LOGIN']);
  expect(missing.outcome.status).toBe(2);
  expect(missing.outcome.stderr).toContain(
    '--credentials: the environment variable NO_SUCH_LOGIN is not set',
  );
});

test('headers and cookies go to the own origin, and to no other', async () => {
  seen.length = 0;
  const config = `access:
  headers: { X-Crew-Token: { env: CREW_TOKEN }, X-Preview: "yes" }
  cookies: [{ name: deck, value: upper }]`;
  const { outcome, out } = await check([`${site.origin}/headers`, '--cookie', 'berth=12'], config);
  expect(manifestOf(outcome).renders[0]!.status).toBe('ok');
  const [own] = seen.filter(({ where, path }) => where === 'site' && path === '/headers');
  expect(own!.headers).toMatchObject({ 'x-crew-token': TOKEN, 'x-preview': 'yes' });
  expect(own!.headers.cookie).toMatch(/deck=upper/);
  expect(own!.headers.cookie).toMatch(/berth=12/);
  const [other] = seen.filter(({ where }) => where === 'elsewhere');
  expect(other!.path).toBe('/style.css');
  expect(other!.headers).not.toHaveProperty('x-crew-token');
  expect(await written(out)).not.toContain(TOKEN);
});

test('a sign-in is done once and used again, its state kept out of the run', async () => {
  const config = `signIns:
  crew:
    at: ${site.origin}/sign-in
    steps:
      - fill: { in: "input[name=word]", with: { env: CREW_WORD } }
      - click: button
      - wait: { text: The bridge }
`;
  const args = [`${site.origin}/bridge`, '--signed-in', 'crew'];
  const first = await check(args, config);
  expect(manifestOf(first.outcome).renders[0]).toMatchObject({ httpStatus: 200 });
  seen.length = 0;
  // The same configuration file, so the same sign-in.
  const again = await isoptic(
    [
      'check',
      ...args,
      '--at',
      '600x400',
      '--json',
      '--out',
      join(temp.path, 'again'),
      '--config',
      join(temp.path, `config-${runs}.yaml`),
    ],
    { env: { CREW_WORD: PASSWORD, XDG_DATA_HOME: home } },
  );
  expect(manifestOf(again).renders[0]).toMatchObject({ httpStatus: 200 });
  expect(seen.map(({ path }) => path)).not.toContain('/sign-in');
  expect(signIns).toBeGreaterThanOrEqual(3);
  const everything = (await written(first.out)) + (await written(join(temp.path, 'again')));
  expect(everything).not.toContain('signed-in-4711-0815');
  expect(everything).not.toContain('first-mate-0815-4711');
  const without = await check([`${site.origin}/bridge`], config);
  expect(manifestOf(without.outcome).renders[0]).toMatchObject({ httpStatus: 403 });
});

test('a sign-in that fails says which step, and leaves a picture', async () => {
  const config = `signIns:
  crew:
    at: ${site.origin}/sign-in
    steps:
      - click: "#gangway"
`;
  const { outcome } = await check([`${site.origin}/bridge`, '--signed-in', 'crew'], config);
  expect(outcome.status).toBe(3);
  expect(outcome.stderr).toMatch(/sign-in "crew" failed on 600x400: .*config-\d+\.yaml:5: step 1/s);
  expect(outcome.stderr).toContain('sign-in.failed.png');
});

test('what a failed sign-in says keeps what was typed to itself', async () => {
  const config = `signIns:
  crew:
    at: ${site.origin}/sign-in
    steps:
      - fill: { in: "input[name=word]", with: { env: CREW_WORD } }
      - run: throw new Error(document.querySelector('input').value)
`;
  const { outcome } = await check([`${site.origin}/bridge`, '--signed-in', 'crew', '--verbose'], config);
  expect(outcome.status).toBe(3);
  expect(outcome.stderr).toContain('the script failed: Error: •••');
  expect(outcome.stderr).not.toContain(PASSWORD);
});

test('a certificate that nobody vouches for is refused, with the option that takes it named', async () => {
  const refused = await check([`${secure.origin}/`]);
  expect(refused.outcome.status).toBe(3);
  const [render] = manifestOf(refused.outcome).renders;
  expect(render!.error!.code).toBe('certificate');
  expect(render!.error!.message).toContain('--trust-any-certificate');
  const taken = await check([`${secure.origin}/`, '--trust-any-certificate', '--follow', '1']);
  expect(taken.outcome.status).toBe(0);
});

test('what the browser refuses as mixed content is told as that', async () => {
  const { outcome } = await check([`${secure.origin}/mixed`, '--trust-any-certificate']);
  const [finding] = manifestOf(outcome).findings;
  expect(finding).toMatchObject({ rule: 'missing-resource' });
  expect(finding!.details).toEqual([
    'style sheet http://ferries.invalid/style.css: the browser refused it (mixed-content)',
  ]);
});
