// How many times slower a page's own work is under --cpu-slowdown 6 than without: the least of twelve pieces of
// work, so that what else the machine does meanwhile counts little. `--check` fails below twice.
import { execFile } from 'node:child_process';
import { once } from 'node:events';
import { mkdtemp, rm } from 'node:fs/promises';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';

const PAGE = `<!doctype html><title>Tides</title><p>Tides of the sound.</p><script>
  let least = Infinity;
  for (let piece = 0; piece < 12; piece++) {
    const start = performance.now();
    for (let i = 0, sum = 0; i < 2e7; i++) sum += i % 7;
    least = Math.min(least, performance.now() - start);
  }
  fetch('/told', { method: 'POST', body: String(least) });
</script>`;

let told = NaN;
const server = createServer((request, response) => {
  if (request.url !== '/told') return response.setHeader('content-type', 'text/html').end(PAGE);
  request.on('data', (part) => (told = Number(part)));
  request.on('end', () => response.end());
}).listen(0, '127.0.0.1');
await once(server, 'listening');
const folder = await mkdtemp(join(tmpdir(), 'isoptic-slowdown-'));

async function leastMs(...options) {
  const command = [
    'dist/cli/main.js',
    'check',
    `http://127.0.0.1:${server.address().port}/`,
    '--at',
    '600x400',
  ];
  const out = [
    '--shots',
    'none',
    '--quiet',
    '--fail-on',
    'never',
    '--out',
    join(folder, String(options.length)),
  ];
  await promisify(execFile)(process.execPath, [...command, ...out, ...options]);
  return told;
}

try {
  const plain = await leastMs();
  const slow = await leastMs('--cpu-slowdown', '6');
  console.log(
    `${plain.toFixed(1)} ms, slowed six times ${slow.toFixed(1)} ms: ${(slow / plain).toFixed(1)} times`,
  );
  if (process.argv.includes('--check') && !(slow > 2 * plain)) process.exitCode = 1;
} finally {
  server.close();
  await rm(folder, { recursive: true, force: true });
}
