import { mkdir, readdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { isoptic, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let page: string;
beforeAll(async () => {
  temp = await temporaryFolder();
  page = join(temp.path, 'index.html');
  await writeFile(page, '<!doctype html><title>P</title><p>Boats</p>');
});
afterAll(() => temp.dispose());

test('without a cache folder that can be written a private temporary one is used and told', async () => {
  const tmp = join(temp.path, 'tmp');
  await mkdir(tmp);
  const out = join(temp.path, 'no-cache');
  const cache = join(page, 'cache');
  const env = { XDG_CACHE_HOME: cache, HOME: '/proc/nobody', TMPDIR: tmp };
  const args = ['check', page, '--at', '400x700', '--shots', 'none', '--fail-on', 'never', '--out', out];
  const { status, stderr } = await isoptic(args, { env });
  expect(status).toBe(0);
  expect(stderr).toContain(`the cache folder ${cache}/isoptic can not be written`);
  expect(stderr).toContain('XDG_CACHE_HOME');
  expect((await readdir(tmp)).some((name) => name.startsWith('isoptic-cache-'))).toBe(true);
});
