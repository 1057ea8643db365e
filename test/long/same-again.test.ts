import { createHash } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Manifest } from '../../src/run/manifest.js';
import { isoptic, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;

beforeAll(async () => {
  temp = await temporaryFolder();
});
afterAll(() => temp.dispose());

test('ten runs give the same bytes in every picture, and the same findings', async () => {
  const digestOf = (data: Buffer | string) => createHash('sha256').update(data).digest('hex');
  const runs = [];
  for (let i = 0; i < 10; i++) {
    const out = join(temp.path, `again-${i}`);
    await isoptic([
      'check',
      'demo/as-found/contact.html',
      'demo/as-found/fleet.html',
      '--on',
      'ios-phone-390,windows-laptop-1366',
      '--quiet',
      '--out',
      out,
    ]);
    const files = (await readdir(out, { recursive: true })).filter((file) => file.endsWith('.png')).sort();
    expect(files.length).toBeGreaterThanOrEqual(8);
    const pictures: Record<string, string> = {};
    for (const file of files) pictures[file] = digestOf(await readFile(join(out, file)));
    const { findings } = JSON.parse(await readFile(join(out, 'run.json'), 'utf8')) as Manifest;
    runs.push({ pictures, findings });
  }
  for (const run of runs) expect(run).toEqual(runs[0]);
});
