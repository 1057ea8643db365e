import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { isoptic, readManifest, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
beforeAll(async () => (temp = await temporaryFolder()));
afterAll(() => temp.dispose());

/** A bar of pure green that stays at the foot of the screen, over the last line of a page of two screens. */
const PAGE = `<!doctype html><meta name="viewport" content="width=device-width, initial-scale=1"><title>Tides</title>
<style>body { margin: 0; font: 20px/30px sans-serif } .bar { position: fixed; inset: auto 0 0 0; height: 60px; background: rgb(0, 255, 0) }</style>
<p style="height: 1200px; margin: 0">High water at Wickham Quay</p>
<p class="last" style="margin: 0">The last boat waits for the tide</p>
<div class="bar"></div>`;

test('what shows only where the page is scrolled to is pictured there, with what is lost', async () => {
  const page = join(temp.path, 'tides.html');
  const out = join(temp.path, 'run');
  await writeFile(page, PAGE);
  await isoptic(['check', page, '--at', '400x600@2+mobile', '--out', out]);
  const { findings } = await readManifest(out);
  const finding = findings.find(({ rule }) => rule === 'covered')!;
  const [seen] = finding.seen;
  expect(finding.selector).toContain('bar');
  // The page ends at 1230 and the screen is 600 high.
  expect(seen).toMatchObject({
    scrolled: 630,
    fault: { y: 1170, height: 60 },
    suffers: [{ y: 1200, height: 30 }],
  });
  const { data, info } = await sharp(join(out, seen!.evidence!))
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  let green = 0;
  for (let i = 0; i < data.length; i += 3)
    if (data[i]! < 60 && data[i + 1]! > 200 && data[i + 2]! < 60) green++;
  // The bar is there, over the place of the last line, as wide as the crop.
  expect(green).toBeGreaterThan(0.3 * info.width * 60);
});
