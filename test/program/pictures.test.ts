import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { isoptic, readManifest, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;

/** 200 rows of 100 px, each parted from the next by a line, under bars that stay on the screen. */
const TALL = `<!doctype html><meta name="viewport" content="width=device-width, initial-scale=1"><title>Tides</title>
<style>body { margin: 0 } .row { height: 99px; border-bottom: 1px solid #000 }
.top, .foot { position: fixed; left: 0; right: 0; height: 40px } .top { top: 0; background: rgb(255, 0, 0) } .foot { bottom: 0; background: rgb(0, 255, 0) }</style>
${'<div class="row"></div>'.repeat(200)}<div class="top"></div><div class="foot"></div>`;

beforeAll(async () => {
  temp = await temporaryFolder();
  await writeFile(join(temp.path, 'tall.html'), TALL);
});
afterAll(() => temp.dispose());

const check = (out: string, ...args: string[]) =>
  isoptic(['check', 'tall.html', '--fail-on', 'never', '--out', out, ...args], { cwd: temp.path });

/** Along one column of a picture: the bands of pure red and green, and how far apart dark lines are. */
async function columnOf(path: string) {
  const { data, info } = await sharp(join(temp.path, path), { limitInputPixels: false })
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const bands: string[] = [];
  const lines: number[] = [];
  let before = '';
  for (let y = 0; y < info.height; y++) {
    const at = (y * info.width + (info.width >> 1)) * 3;
    const [red, green, blue] = [data[at]!, data[at + 1]!, data[at + 2]!];
    const tone = red > 230 && green < 25 ? 'red' : green > 230 && red < 25 ? 'green' : '';
    if (tone !== before && tone !== '') bands.push(`${tone} ${y}`);
    before = tone;
    if (red + green + blue < 60) lines.push(y);
  }
  return { width: info.width, height: info.height, bands, lines };
}

test('a page over 16,384 px in one picture without a seam, with its bars once and where the screen has them', async () => {
  expect((await check('css', '--at', '400x600+mobile', '--shots', 'full')).status).toBe(0);
  const { renders } = await readManifest(join(temp.path, 'css'));
  const { height, bands, lines } = await columnOf(`css/${renders[0]!.shots.full!}`);
  expect(height).toBe(20_000);
  expect(bands).toEqual(['red 0', 'green 560']);
  // Every 100 px but where the foot bar lies over the line.
  expect(lines).toEqual(Array.from({ length: 200 }, (_, i) => i * 100 + 99).filter((y) => y !== 599));
  expect(renders[0]!.notes).toEqual([]);
});

test('at device pixels, as WebP where that can be so long, and with a device round the first screen', async () => {
  const outcome = await check('device', '--on', 'ios-phone-390', '--shots', 'fold,full@dpr,webp', '--frame');
  expect(outcome.status).toBe(0);
  const { renders, profiles } = await readManifest(join(temp.path, 'device'));
  const { shots } = renders[0]!;
  expect([shots.fold, shots.full].map((path) => path!.split('.').at(-1))).toEqual(['webp', 'png']);
  const full = await columnOf(`device/${shots.full!}`);
  expect(full.width).toBe(390 * 3);
  expect(full.bands).toEqual(['red 0', `green ${(664 - 40) * 3}`]);
  const framed = await columnOf(`device/${shots.framed!}`);
  const { screen } = profiles[0]!;
  expect([framed.width, framed.height]).toEqual([(screen.width + 24) * 3, (screen.height + 24) * 3]);
  expect(framed.bands.map((band) => band.split(' ')[0])).toEqual(['red', 'green']);
});

test('evidence and masks follow the pixels of the picture', async () => {
  const page = `<!doctype html><meta name="viewport" content="width=device-width, initial-scale=1"><title>Quay</title>
    <style>body { margin: 0 } .wide { width: 700px; height: 60px; background: rgb(0, 255, 0) } .secret { height: 100px; background: rgb(255, 0, 0) }</style>
    <div class="secret"></div><div class="wide"></div>`;
  await writeFile(join(temp.path, 'wide.html'), page);
  await writeFile(join(temp.path, 'isoptic.yaml'), 'mask: [.secret]\n');
  const out = join(temp.path, 'masked');
  await isoptic(
    ['check', 'wide.html', '--at', '400x600@2', '--shots', 'full@dpr', '--fail-on', 'never', '--out', out],
    {
      cwd: temp.path,
    },
  );
  const { renders, findings } = await readManifest(out);
  const full = await columnOf(`masked/${renders[0]!.shots.full!}`);
  expect(full.bands).toEqual(['green 200']);
  const evidence = await columnOf(`masked/${findings[0]!.seen[0]!.evidence!}`);
  // 60 px of green at one pixel a CSS px, under what there is of the masked part.
  expect(evidence.bands.some((band) => band.startsWith('green'))).toBe(true);
  expect(evidence.width).toBeLessThanOrEqual(520);
});

/** Where a colour is seen along the middle of a picture, px: its first and last; null where it is not. */
async function spanOf(path: string, isIt: (red: number, green: number, blue: number) => boolean) {
  const { data, info } = await sharp(join(temp.path, path))
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const found: number[] = [];
  for (let at = 0; at < info.width * info.height; at++)
    if (isIt(data[3 * at]!, data[3 * at + 1]!, data[3 * at + 2]!)) found.push(at % info.width);
  return found.length === 0 ? null : { from: Math.min(...found), to: Math.max(...found) };
}

test('of a page that is read from the right and too wide, masks and outlines are where its parts are', async () => {
  const page = `<!doctype html><html dir="rtl"><meta name="viewport" content="width=device-width"><title>Quay</title>
    <style>body { margin: 0 } .wide { width: 500px; height: 60px; background: rgb(0, 255, 0) } .secret { width: 100px; height: 60px; background: rgb(255, 0, 0) }</style>
    <div class="secret"></div><div class="wide"></div>`;
  await writeFile(join(temp.path, 'right.html'), page);
  await writeFile(join(temp.path, 'isoptic.yaml'), 'mask: [.secret]\n');
  const args = ['--at', '400x600', '--fail-on', 'never', '--out', 'right'];
  await isoptic(['check', 'right.html', ...args], { cwd: temp.path });
  const { renders, findings } = await readManifest(join(temp.path, 'right'));
  const [{ document, shots }] = renders as [(typeof renders)[number]];
  expect(document).toMatchObject({ left: -100, width: 500 });
  const isSecret = (red: number, green: number) => red > 230 && green < 25;
  expect(await spanOf(`right/${shots.full!}`, isSecret)).toBeNull();
  expect(await spanOf(`right/${shots.fold!}`, isSecret)).toBeNull();
  const isMask = (red: number, green: number, blue: number) =>
    red === 0x7d && green === 0x7f && blue === 0x86;
  expect(await spanOf(`right/${shots.full!}`, isMask)).toEqual({ from: 399, to: 499 });
  expect(await spanOf(`right/${shots.fold!}`, isMask)).toEqual({ from: 300, to: 399 });
  const evidence = `right/${findings.find(({ rule }) => rule === 'page-overflow')!.seen[0]!.evidence!}`;
  const isOutline = (red: number, green: number, blue: number) =>
    red === 0xd0 && green === 0x10 && blue === 0x3f;
  expect(await spanOf(evidence, isOutline)).toMatchObject({ from: 0 });
  const outline = (await spanOf(evidence, isOutline))!;
  const part = (await spanOf(evidence, (red, green) => green > 230 && red < 25))!;
  expect(outline.to - part.to).toBeLessThanOrEqual(3);
});

test('of a page whose lines run from top to bottom, too, and its reading on to the left is no fault', async () => {
  const words =
    '<p>The boat left the quay at six in the fog, and nobody spoke until the rock was passed.</p>'.repeat(9);
  const page = `<!doctype html><html style="writing-mode: vertical-rl"><meta name="viewport" content="width=device-width"><title>Log</title>
    <style>body { margin: 16px; font: 20px/1.8 sans-serif } .secret { width: 60px; height: 60px; background: rgb(255, 0, 0) }</style>
    <div class="secret"></div>${words}`;
  await writeFile(join(temp.path, 'down.html'), page);
  await writeFile(join(temp.path, 'isoptic.yaml'), 'mask: [.secret]\n');
  await isoptic(['check', 'down.html', '--at', '500x600', '--out', 'down'], { cwd: temp.path });
  const { renders, findings } = await readManifest(join(temp.path, 'down'));
  const [{ document, shots }] = renders as [(typeof renders)[number]];
  expect(document!.left).toBe(500 - document!.width);
  expect(findings.filter(({ severity }) => severity !== 'notice')).toEqual([]);
  const isSecret = (red: number, green: number) => red > 150 && green < 90;
  expect(await spanOf(`down/${shots.full!}`, isSecret)).toBeNull();
  expect(await spanOf(`down/${shots.fold!}`, isSecret)).toBeNull();
});

test('shots that there are not, or that can not go together', async () => {
  const refused = async (...args: string[]) => (await check('never', ...args)).stderr;
  expect(await refused('--shots', 'folds')).toMatch(/no shot "folds"[^]*full@dpr/);
  expect(await refused('--shots', 'full,full@dpr')).toMatch(/pixels of the device or it has not/);
  expect(await refused('--shots', 'none,webp')).toMatch(/stands alone/);
  expect(await refused('--shots', 'full', '--frame')).toMatch(/first screen/);
});
