import { mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { evidenceCrop } from '../../src/run/evidence.js';
import { RunFolder } from '../../src/run/run-folder.js';

let folder: string;

beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'isoptic-run-'));
});
afterEach(() => rm(folder, { recursive: true, force: true }));

test('a run is replaced only when asked, and only where nothing foreign lies', async () => {
  await RunFolder.create(folder, false);
  await writeFile(join(folder, 'run.json'), '{}');
  await expect(RunFolder.create(folder, false)).rejects.toMatchObject({ code: 'run-exists' });
  await RunFolder.create(folder, true);
  expect(await readdir(folder)).toEqual([]);
  // What a sign-in that failed left is a run's own, too.
  await writeFile(join(folder, 'sign-in.failed.png'), '');
  await RunFolder.create(folder, true);
  expect(await readdir(folder)).toEqual([]);
  await writeFile(join(folder, 'thesis.docx'), 'precious');
  await expect(RunFolder.create(folder, true)).rejects.toMatchObject({ code: 'run-exists' });
  expect(await readdir(folder)).toEqual(['thesis.docx']);
});

test('a folder that can not be made is refused before anything is rendered', async () => {
  await writeFile(join(folder, 'file'), '');
  await expect(RunFolder.create(join(folder, 'file', 'below'), false)).rejects.toMatchObject({
    code: 'out-unwritable',
    exitStatus: 2,
  });
});

test('evidence is a crop round the defect with its outline, or nothing where the picture ends before it', async () => {
  const shot = join(folder, 'shot.png');
  await sharp({ create: { width: 300, height: 200, channels: 3, background: '#ffffff' } })
    .png()
    .toFile(shot);
  const crop = await evidenceCrop(shot, { x: 250, y: 50, width: 100, height: 20 });
  const { data, info } = await sharp(crop!).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  expect([info.width, info.height]).toEqual([74, 68]);
  const pixel = (x: number, y: number) => [
    ...data.subarray((y * info.width + x) * 3, (y * info.width + x) * 3 + 3),
  ];
  expect(pixel(40, 24)).toEqual([0xd6, 0x22, 0x4a]);
  expect(pixel(5, 5)).toEqual([255, 255, 255]);
  expect(await evidenceCrop(shot, { x: 400, y: 0, width: 10, height: 10 })).toBeNull();
});
