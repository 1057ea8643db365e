import { join } from 'node:path';
import { isoptic, manifestOf, serve, temporaryFolder } from '../support/program.js';

interface Told {
  readonly contrast: string;
  readonly forced: boolean;
  readonly print: boolean;
  readonly still: boolean;
  readonly zone: string;
  readonly language: string;
  readonly width: number;
  readonly answerMs: number;
}

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let server: Awaited<ReturnType<typeof serve>>;
let told: Told | null = null;

/** The page tells the server, which outlives it, what it was shown under. */
const PAGE = `<!doctype html><title>Weather</title><p>Weather on the crossing.</p><script>
  const has = (query) => matchMedia(query).matches;
  (async () => {
    const asked = performance.now();
    await (await fetch('/tide')).text();
    const answerMs = performance.now() - asked;
    await fetch('/told', { method: 'POST', body: JSON.stringify({
      contrast: ['more', 'less', 'custom', 'no-preference'].find((level) => has('(prefers-contrast: ' + level + ')')),
      forced: has('(forced-colors: active)'), print: has('print'), still: has('(prefers-reduced-motion: reduce)'),
      zone: Intl.DateTimeFormat().resolvedOptions().timeZone, language: navigator.language, width: innerWidth,
      answerMs }) });
  })();
</script>`;

beforeAll(async () => {
  temp = await temporaryFolder();
  server = await serve((request, response) => {
    if (request.url === '/told') {
      let body = '';
      request.on('data', (part: Buffer) => (body += part.toString()));
      request.on('end', () => {
        told = JSON.parse(body) as Told;
        response.end();
      });
    } else if (request.url === '/tide') response.end('rising');
    else response.writeHead(200, { 'content-type': 'text/html' }).end(PAGE);
  });
});
afterAll(async () => {
  await server.close();
  await temp.dispose();
});

let runs = 0;
async function under(...options: string[]): Promise<Told> {
  told = null;
  const args = ['--at', '600x400', '--shots', 'none', '--json', '--out', join(temp.path, `run-${++runs}`)];
  const outcome = await isoptic(['check', server.origin, ...args, ...options]);
  expect(manifestOf(outcome).summary.failed).toBe(0);
  return told!;
}

test('contrast, forced colours, print, motion, language and time zone reach the page', async () => {
  const plain = await under();
  expect(plain).toMatchObject({
    contrast: 'no-preference',
    forced: false,
    print: false,
    still: false,
    width: 600,
  });
  const options = ['--contrast', 'more', '--forced-colors', '--media', 'print', '--reduced-motion'];
  const other = await under(...options, '--locale', 'de-CH', '--timezone', 'Pacific/Chatham', '--zoom', '2');
  expect(other).toMatchObject({
    contrast: 'more',
    forced: true,
    print: true,
    still: true,
    language: 'de-CH',
    zone: 'Pacific/Chatham',
    width: 300,
  });
});

// Only what can't be sooner is asked of a clock here: that a machine is fast enough is never certain.
test('a slow network answers no sooner than it says', async () => {
  const slow = await under('--network', 'slow-mobile');
  expect(slow.answerMs).toBeGreaterThanOrEqual(390);
});
