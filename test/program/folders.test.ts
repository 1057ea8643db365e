import { rm, writeFile } from 'node:fs/promises';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { check } from '../../src/api/check.js';
import { IsopticError } from '../../src/core/errors.js';
import type { Engine } from '../../src/engine/engine.js';
import { makeFolder } from '../../src/engine/make-folder.js';
import { isoptic, readManifest, temporaryFolder, until } from '../support/program.js';
import { standIn } from '../support/stand-in.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let page: string;
beforeAll(async () => {
  temp = await temporaryFolder();
  page = join(temp.path, 'index.html');
  await writeFile(
    page,
    '<!doctype html><title>P</title><div style="width:900px;background:#ccc">Boats</div>',
  );
});
afterAll(() => temp.dispose());

test('folders are made with those above them; where none can be made it ends', async () => {
  const deep = join(temp.path, 'a', 'b', 'c');
  // Many at once, as pictures of a run are written.
  const many = Array.from({ length: 40 }, (_, i) => join(temp.path, 'a', `b-${i % 4}`, `c-${i}`));
  await Promise.all([deep, deep, ...many].map((path) => makeFolder(path)));
  expect(existsSync(deep)).toBe(true);
  await expect(makeFolder(join(page, 'below'))).rejects.toThrow(/ENOTDIR|EEXIST/);
  // A recursive mkdir of Node's own never comes back from here.
  if (process.platform === 'linux') await expect(makeFolder('/proc/isoptic/x')).rejects.toThrow('ENOENT');
});

test('a run folder where nothing can be written is refused', async () => {
  const { status, stderr } = await isoptic(['check', page, '--at', '400x700', '--out', join(page, 'run')]);
  expect(status).toBe(2);
  expect(stderr).toContain('--out');
});

test('pictures, evidence and layouts that can not be written are noted; what was found is told all the same', async () => {
  const out = join(temp.path, 'blocked');
  const args = ['check', page, '--at', '400x700', '--out', out];
  const { status, stdout } = await isoptic(args, {
    // Files where the run wants its folders.
    during: async () => {
      await until(() => existsSync(out));
      for (const name of ['shots', 'layouts']) await writeFile(join(out, name), '');
    },
  });
  const { renders, findings } = await readManifest(out);
  expect(renders[0]).toMatchObject({ status: 'ok', shots: {} });
  expect(renders[0]!.notes.join('\n')).toMatch(
    /its pictures could not be written: .*\n.*its layout could not be written/,
  );
  expect(findings.map(({ rule }) => rule)).toContain('page-overflow');
  expect(stdout).toContain('its pictures could not be written');
  expect(status).toBe(1);

  await rm(out, { recursive: true });
  await isoptic(args, {
    during: async () => {
      await until(() => existsSync(out));
      await writeFile(join(out, 'evidence'), '');
    },
  });
  const manifest = await readManifest(out);
  expect(manifest.renders[0]!.notes.join('\n')).toContain('its evidence could not be written');
  expect(manifest.findings[0]!.seen[0]!.evidence).toBeUndefined();
});

test('a browser that does not start once is started again', async () => {
  const engine = standIn(({ width }) => ({ options: { width }, children: [] }));
  let starts = 0;
  const moody: Engine = {
    ...engine,
    launch: (options) =>
      starts++ === 0
        ? Promise.reject(new IsopticError('browser-start', 'It did not start.', 'Wait.', 4))
        : engine.launch(options),
  };
  const options = { targets: [temp.path], profiles: ['400x800'], engine: moody };
  const run = await check({ ...options, out: join(temp.path, 'moody') });
  expect(run.renders.map(({ status }) => status)).toEqual(['ok']);
  const broken: Engine = {
    ...engine,
    launch: () => Promise.reject(new IsopticError('browser-start', 'It did not start.', 'Wait.', 4)),
  };
  await expect(check({ ...options, engine: broken, out: join(temp.path, 'broken') })).rejects.toMatchObject({
    code: 'browser-start',
    exitStatus: 4,
  });
});
