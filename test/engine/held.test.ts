import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { pickProfiles } from '../../src/api/check.js';
import type { BrowserSession } from '../../src/engine/engine.js';
import type { PageSession } from '../../src/engine/page-session.js';
import { openTargets } from '../../src/site/targets.js';
import { jobOf } from '../support/job.js';
import { launched } from '../support/launch.js';
import { temporaryFolder } from '../support/program.js';

let browser: BrowserSession;
let temp: Awaited<ReturnType<typeof temporaryFolder>>;
const sites: Awaited<ReturnType<typeof openTargets>>[] = [];
beforeAll(async () => {
  temp = await temporaryFolder();
  browser = await launched();
});
afterAll(async () => {
  await browser.close();
  await Promise.all(sites.map((site) => site.close()));
  await temp.dispose();
});

/** A page that is higher than the screen, with a dark box of 100 px in the middle of what its scroll bar leaves. */
const page = (style: string, script: string) => `<!doctype html><title>Held</title>
<style>body { margin: 0; height: 3000px } #box { width: 100px; height: 40px; margin: 20px auto; background: #123; ${style} }</style>
<div id="box"></div><script>${script}</script>`;

async function open(html: string): Promise<PageSession> {
  const file = join(temp.path, 'held.html');
  await writeFile(file, html);
  const site = await openTargets([file], { all: false });
  sites.push(site);
  const [device] = await pickProfiles(['800x600']);
  const opened = await browser.open(jobOf(site.pages[0]!.url, device!));
  await opened.settle('loaded');
  return opened;
}

/** Where the dark box begins on a picture, px. */
async function darkFrom(picture: Buffer): Promise<number> {
  const { data, info } = await sharp(picture).greyscale().raw().toBuffer({ resolveWithObject: true });
  return data.subarray(30 * info.width, 31 * info.width).findIndex((value) => value < 100);
}

const AREA = { x: 0, y: 0, width: 700, height: 60 };

test.each(['a part', 'a part with styles changed', 'the whole page'])(
  '%s is pictured as it is laid out beside its scroll bar',
  async (what) => {
    const opened = await open(page('', ''));
    const onScreen = await darkFrom((await opened.shoot('fold')).file);
    const probe = opened.probe();
    const picture =
      what === 'the whole page'
        ? (await opened.shoot('full')).file
        : what === 'a part'
          ? (await opened.shoot(AREA)).file
          : (await probe.picturesWith([[]], AREA))![0]!;
    expect(onScreen).toBe(343);
    expect(await darkFrom(picture)).toBe(onScreen);
    await probe.close();
    await opened.close();
  },
);

test('a page that reads from the right to the left and fits the screen is pictured in its place', async () => {
  const html = page('', '').replace('height: 3000px', 'direction: rtl').replace('auto', '200px');
  const opened = await open(html.replace('<title>', '<html dir="rtl"><title>'));
  const onScreen = await darkFrom((await opened.shoot('fold')).file);
  expect(onScreen).toBe(500);
  expect(await darkFrom((await opened.shoot('full')).file)).toBe(onScreen);
  await opened.close();
});

test('what media queries change while the viewport is another one does not come back by a transition', async () => {
  // The box starts anew whenever the window becomes wide; what the page sees of that is not in its pictures.
  const script = `matchMedia('(min-width: 500px)').onchange = () => {
    box.style.transition = 'none';
    box.style.marginLeft = '0';
    box.getBoundingClientRect();
    box.style.transition = '';
    box.style.marginLeft = '300px';
  }`;
  const opened = await open(page('margin-left: 300px; transition: margin-left 60s linear', script));
  const probe = opened.probe();
  const pictures = [
    (await opened.shoot('fold')).file,
    (await opened.shoot('full')).file,
    ...(await probe.picturesWith([[], []], AREA))!,
    (await opened.shoot('fold')).file,
  ];
  expect(await Promise.all(pictures.map(darkFrom))).toEqual([300, 300, 300, 300, 300]);
  await probe.close();
  await opened.close();
});
