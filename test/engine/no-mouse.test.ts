import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { pickProfiles } from '../../src/api/check.js';
import { SnapshotView } from '../../src/core/layout/view.js';
import type { BrowserSession } from '../../src/engine/engine.js';
import { openTargets } from '../../src/site/targets.js';
import { jobOf } from '../support/job.js';
import { launched } from '../support/launch.js';
import { temporaryFolder } from '../support/program.js';

let browser: BrowserSession;
let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let site: Awaited<ReturnType<typeof openTargets>>;

/** A bar at the top left, where browsers without a window say that a mouse is, and how often a script has heard of one. */
const PAGE = `<!doctype html><meta name="viewport" content="width=device-width"><title>Bar</title>
<style>body { margin: 0 } nav { position: fixed; left: 0; top: 0; width: 56px; height: 100% } nav:hover { width: 220px }</style>
<nav id="bar"></nav><p id="heard"></p>
<script>for (const type of ['mouseover', 'mousemove', 'pointermove'])
addEventListener(type, () => { heard.textContent = 'heard' }, true)</script>`;

beforeAll(async () => {
  temp = await temporaryFolder();
  const file = join(temp.path, 'bar.html');
  await writeFile(file, PAGE);
  site = await openTargets([file], { all: false });
  browser = await launched();
});
afterAll(async () => {
  await browser.close();
  await site.close();
  await temp.dispose();
});

test.each(['390x844+mobile', '1280x720'])(
  'nothing is hovered over on %s before somebody points at it',
  async (size) => {
    const [device] = await pickProfiles([size]);
    const page = await browser.open(jobOf(site.pages[0]!.url, device!));
    const seen = async () => {
      const view = new SnapshotView(await page.collect({ locate: [] }));
      const nav = Array.from({ length: view.count }, (_, i) => i).find((i) => view.tag(i) === 'nav')!;
      const words = Array.from({ length: view.snapshot.lines.count }, (_, line) => view.lineText(line));
      return [view.box(nav).width, ...words];
    };
    await page.settle('loaded');
    expect(await seen()).toEqual([56]);
    await page.resize({ width: device!.width + 10, height: device!.height });
    await page.settle('resized');
    expect(await seen()).toEqual([56]);
    if (device!.touchPoints === 0) {
      await page.dispatch({ kind: 'hover', selector: '#bar' });
      await page.settle('changed');
      expect(await seen()).toEqual([220, 'heard']);
    }
    await page.close();
  },
);
