import { readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { isoptic, readManifest, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let run: string;

/** A page that is one colour, with a block of another in it: what is measured on the sheets. */
const PAGE = `<!doctype html><meta name="viewport" content="width=device-width, initial-scale=1"><title>Quay & <b>pier</b></title>
<style>body { margin: 0; background: rgb(0, 0, 255) } .berth { width: 100px; height: 50px; margin: 300px 0 2000px 40px; background: rgb(0, 255, 0) }</style>
<div class="berth"></div>`;

beforeAll(async () => {
  temp = await temporaryFolder();
  run = join(temp.path, 'run');
  await writeFile(join(temp.path, 'quay.html'), PAGE);
  const on = 'ios-phone-390,ios-tablet-820';
  const checked = await isoptic(['check', 'quay.html', '--on', on, '--fail-on', 'never', '--out', run], {
    cwd: temp.path,
  });
  expect(checked.status).toBe(0);
});
afterAll(() => temp.dispose());

/** The boxes of one colour on a sheet, from the left. */
async function boxesOf(file: string, [red, green, blue]: readonly [number, number, number]) {
  const { data, info } = await sharp(file).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const columns: { from: number; to: number; top: number; bottom: number }[] = [];
  for (let x = 0; x < info.width; x++) {
    let [top, bottom] = [-1, -1];
    for (let y = 0; y < info.height; y++) {
      const at = (y * info.width + x) * 3;
      const isIt =
        Math.abs(data[at]! - red) + Math.abs(data[at + 1]! - green) + Math.abs(data[at + 2]! - blue) < 40;
      if (!isIt) continue;
      if (top < 0) top = y;
      bottom = y;
    }
    if (top < 0) continue;
    const last = columns.at(-1);
    if (last && last.to === x - 1) {
      last.to = x;
      last.top = Math.min(last.top, top);
      last.bottom = Math.max(last.bottom, bottom);
    } else columns.push({ from: x, to: x, top, bottom });
  }
  return columns.map(({ from, to, top, bottom }) => ({ width: to - from + 1, height: bottom - top + 1 }));
}
const BLUE = [0, 0, 255] as const;
const GREEN = [0, 255, 0] as const;

const sheet = async (name: string, ...args: string[]) => {
  const file = join(temp.path, name);
  const outcome = await isoptic(['sheet', run, '--out', file, ...args], { cwd: temp.path });
  expect(outcome).toMatchObject({ status: 0, stderr: '', stdout: `${name}\n` });
  return file;
};

test('each as high as the others, true to each other, or by CSS px', async () => {
  const at = async (scale: string) =>
    boxesOf(await sheet(`${scale}.png`, '--scale', scale, '--columns', '2', '--height', '400'), BLUE);
  const { profiles } = await readManifest(run);
  const [phone, tablet] = profiles as [(typeof profiles)[number], (typeof profiles)[number]];
  const fit = await at('fit');
  expect(fit.map(({ height }) => height)).toEqual([400, 400]);
  expect(fit[0]!.width).toBeCloseTo((400 * 390) / 664, -0.5);
  const mm = ({ width, dpr, density }: typeof phone) => (width * dpr) / density!;
  const real = await at('true');
  expect(real[0]!.width / real[1]!.width).toBeCloseTo(mm(phone) / mm(tablet), 1);
  expect(real[1]!.height).toBe(400);
  const css = await at('css');
  expect(css[0]!.width / css[1]!.width).toBeCloseTo(390 / 820, 1);
});

test('a long page in strips that are as high as is asked for, and together show all of it', async () => {
  const boxes = await boxesOf(
    await sheet(
      'full.png',
      '--part',
      'full',
      '--scale',
      'css',
      '--columns',
      '2',
      '--height',
      '300',
      '--no-labels',
    ),
    BLUE,
  );
  // Of the scale at which the tablet's screen is 300 px high.
  const factor = 300 / 1106;
  const { renders } = await readManifest(run);
  const heights = renders.map(({ document }) => document!.height * factor);
  expect(boxes.length).toBe(heights.reduce((sum, height) => sum + Math.ceil(height / 300), 0));
  expect(Math.max(...boxes.map(({ height }) => height))).toBeLessThanOrEqual(300);
  const shown = boxes.reduce((sum, { height }) => sum + height, 0);
  expect(Math.abs(shown - heights[0]! - heights[1]!)).toBeLessThan(6);
});

test('one element on all profiles, with some of what is round it', async () => {
  const file = await sheet(
    'part.png',
    '--part',
    'div.berth',
    '--scale',
    'css',
    '--columns',
    '2',
    '--no-labels',
  );
  const [phone, tablet] = await boxesOf(file, GREEN);
  expect(phone).toEqual(tablet);
  expect(phone!.width / phone!.height).toBeCloseTo(2, 1);
  expect((await boxesOf(file, BLUE))[0]!.width).toBeGreaterThan(phone!.width);
});

test('devices round their screens, on a dark ground, as webp', async () => {
  const file = await sheet('framed.webp', '--frame', '--ground', 'dark', '--columns', '2', '--height', '400');
  const { format, width } = await sharp(file).metadata();
  expect(format).toBe('webp');
  const [phone] = await boxesOf(file, BLUE);
  // Of a device that is 400 px high, the viewport is less.
  expect(phone!.height).toBeCloseTo((400 * 664) / (844 + 24), -0.7);
  expect(width).toBeGreaterThan(300);
});

test('as pdf, and where it is too large smaller', async () => {
  const pdf = await readFile(await sheet('all.pdf'));
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
  const { width, height } = await sharp(
    await sheet('small.png', '--largest', '300', '--columns', '1'),
  ).metadata();
  expect(Math.max(width, height)).toBeLessThanOrEqual(300);
});

test('what can not be drawn is told with what to do', async () => {
  const refused = async (...args: string[]) => {
    const { status, stderr, stdout } = await isoptic(['sheet', ...args], { cwd: temp.path });
    expect(stdout).toBe('');
    return `${status} ${stderr}`;
  };
  expect(await refused(run, '--out', 'sheet.gif')).toMatch(/^2 .*\.gif[^]*\.png, \.webp, \.pdf/);
  expect(await refused(run, '--page', 'nowhere')).toMatch(/^2 .*no such page[^]*quay/);
  expect(await refused(run, '--height', '3')).toMatch(/^2 .*out of range/);
  expect(await refused(run, '--largest', '200', '--gap', '150')).toMatch(/^2 .*so small[^]*--no-labels/);
  expect(await refused(run, '--part', 'p.none')).toMatch(/^2 .*no render of quay has such an element/);
  expect(await refused(run, '--part', 'p{')).toMatch(/^2 .*no selector/);
  expect(await refused('elsewhere')).toMatch(/^2 .*no such folder/);
  const { renders } = await readManifest(run);
  await writeFile(join(run, renders[0]!.shots.fold!), 'no picture');
  expect(await refused(run)).toMatch(/^2 .*can not be read/);
  await rm(join(run, renders[0]!.shots.fold!));
  expect(await refused(run)).toMatch(/^2 .*can not be read/);
});
