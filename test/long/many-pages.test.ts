import { join } from 'node:path';
import { isoptic, manifestOf, serve, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let server: Awaited<ReturnType<typeof serve>>;

beforeAll(async () => {
  temp = await temporaryFolder();
  server = await serve((request, response) => {
    if (request.url!.startsWith('/around')) response.writeHead(302, { location: request.url! }).end();
    else
      response.setHeader('content-type', 'text/html').end('<!doctype html><title>Page</title><p>Good.</p>');
  });
});
afterAll(async () => {
  await server.close();
  await temp.dispose();
});

test('of a hundred pages the seven that fail are told, and the others are done', async () => {
  const paths = Array.from({ length: 100 }, (_, i) => (i % 15 === 3 ? `/around?${i}` : `/good?${i}`));
  const outcome = await isoptic([
    'check',
    ...paths.map((path) => server.origin + path),
    ...['--at', '800x600', '--shots', 'none', '--json', '--out', join(temp.path, 'run')],
  ]);
  expect(outcome.status).toBe(3);
  const manifest = manifestOf(outcome);
  expect(manifest.summary).toMatchObject({ renders: 100, failed: 7 });
  const failed = manifest.renders.filter((render) => render.status === 'failed');
  const sources = new Map(manifest.pages.map(({ id, source }) => [id, source]));
  expect(failed.map((render) => sources.get(render.page))).toEqual(
    [3, 18, 33, 48, 63, 78, 93].map((i) => `${server.origin}/around?${i}`),
  );
});
