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
  const kept = await RunFolder.create(folder, true);
  // Nothing but the room for what is written last.
  await kept.useRoom();
  expect(await readdir(folder)).toEqual([]);
  // What a sign-in that failed left is a run's own, too.
  await writeFile(join(folder, 'sign-in.failed.png'), '');
  await (await RunFolder.create(folder, true)).useRoom();
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

test('evidence: the element at fault outlined, what is lost filled; nothing where the picture ends before it', async () => {
  const shot = join(folder, 'shot.png');
  await sharp({ create: { width: 300, height: 200, channels: 3, background: '#ffffff' } })
    .png()
    .toFile(shot);
  const rect = { x: 250, y: 50, width: 100, height: 20 };
  const lost = [{ x: 255, y: 55, width: 20, height: 10 }];
  const crop = await evidenceCrop(shot, { rect, by: null, fault: rect, lost });
  const { data, info } = await sharp(crop!).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  // From x 40 on, since the picture ends 50 px into the defect.
  expect([info.width, info.height]).toEqual([260, 150]);
  const pixel = (x: number, y: number) => [
    ...data.subarray((y * info.width + x) * 3, (y * info.width + x) * 3 + 3),
  ];
  expect(pixel(250 - 40 + 10, 50)).toEqual([0xd0, 0x10, 0x3f]);
  expect(pixel(5, 5)).toEqual([255, 255, 255]);
  const [red, green] = pixel(265 - 40, 60);
  expect(red! - green!).toBeGreaterThan(40);
  const outside = { x: 400, y: 0, width: 10, height: 10 };
  expect(await evidenceCrop(shot, { rect: outside, by: null })).toBeNull();
});
