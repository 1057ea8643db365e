// Says by pixels what a planted mistake does to a page: which words and controls it takes away, which words lie on words, and whether the
// page scrolls sideways by it. It knows nothing of the rules: it counts ink on pictures of the page with and without the mistake.
// Letters are drawn without smoothing (by the browser's own font settings), so that each pixel of ink has exactly one colour.
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { loadSource } from '../../scripts/load-source.mjs';
import { startBrowser } from '../lib/browser.mjs';
import { paint, rectOf } from './describe.mjs';

/** Of a page, so much is looked at, px. */
const LONGEST = 7000;
const WIDEST = 2400;
/** Fewer pixels of ink say nothing. */
const LEAST_INK = 24;
/** Of words, so many pixels out of the box that is drawn round them. */
const LEAST_OUTSIDE = 6;
/** Of an element's ink, so much has to be gone before an eye misses it; between the two, eyes differ. */
const LOST_SHARE = 0.05;
const DOUBT_SHARE = 0.015;
const LEAST_PX = 3;
/** Letters that stand some part of a pixel elsewhere have a few pixels of ink more or less. */
const LEAST_LOST = 16;
/** Words on words: so many pixels that are painted twice more than before, and such a share of the element's ink. */
const LEAST_TWICE = 16;
const DOUBT_TWICE = 5;
const TWICE_SHARE = 0.004;
const CONTROL_SHARE = 0.3;

export const SIZES = [
  { width: 390, height: 844, isMobile: true, hasTouch: true },
  { width: 820, height: 1106, isMobile: true, hasTouch: true },
  { width: 1280, height: 720 },
];

export async function startOracle() {
  const { fontconfigFile } = await loadSource('src/engine/fonts/fontconfig.ts');
  const fonts = readFileSync(await fontconfigFile('linux'), 'utf8');
  const crisp = ['font', 'pattern']
    .map(
      (target) =>
        `<match target="${target}"><edit name="antialias" mode="assign"><bool>false</bool></edit></match>`,
    )
    .join('');
  const file = join(mkdtempSync(join(tmpdir(), 'isoptic-oracle-')), 'fonts.conf');
  writeFileSync(file, fonts.replace('</fontconfig>', `${crisp}</fontconfig>`));
  return startBrowser({
    env: { FONTCONFIG_FILE: file },
    args: [
      '--disable-lcd-text',
      '--font-render-hinting=none',
      '--hide-scrollbars',
      '--disable-gpu',
      '--disable-gpu-vsync',
      '--disable-frame-rate-limit',
    ],
  });
}

/** A page at rest on one of the sizes. */
export async function load(browser, url, size) {
  const page = await browser.newPage();
  await page.setViewport(size);
  await page.goto(url, { waitUntil: 'load', timeout: 20_000 }).catch(() => undefined);
  await page.evaluate(async () => {
    for (let y = 0; y < Math.min(8000, document.documentElement.scrollHeight); y += innerHeight) {
      scrollTo({ top: y, behavior: 'instant' });
      await new Promise((done) => requestAnimationFrame(done));
    }
    scrollTo({ top: 0, behavior: 'instant' });
    await document.fonts.ready;
    await new Promise((done) => setTimeout(done, 150));
  });
  return page;
}

/**
 * What there is to be seen of a page: ink by element, words on words, controls by area. Of each as much as the best picture shows: one of
 * the whole page, and screens scrolled to, so that what only scrolling frees is free.
 * @param around the heights that are scrolled to; null for all of the page, a screen at a time
 */
export async function seen(page, around) {
  const { height: screen, width } = page.viewport();
  // A page that is laid out wider than the screen, or that scrolls sideways as it is, is all there.
  const whole = await page.evaluate(() => Math.max(innerWidth, document.documentElement.scrollWidth));
  const found = { ids: null, controls: null, size: null };
  let owners = new Uint32Array(0);
  let byNumber = [];
  const shots = async (end, look, isWholeOnly) => {
    const last = Math.max(0, end - screen);
    const take = async (clip, captureBeyondViewport) => {
      const png = await page.screenshot({ optimizeForSpeed: true, clip, captureBeyondViewport });
      const { data, info } = await sharp(png).removeAlpha().raw().toBuffer({ resolveWithObject: true });
      look(data, clip.y, info.width);
    };
    // A page whose content is all out of the flow has no height of its own.
    await take(
      { x: 0, y: 0, width: Math.min(whole, WIDEST), height: Math.max(screen, Math.min(end, LONGEST)) },
      true,
    );
    if (isWholeOnly) return;
    const heights = new Set([0, last]);
    if (around === null)
      for (let y = 0; y < Math.min(last, LONGEST); y += Math.round(screen * 0.7)) heights.add(y);
    else
      for (const place of around)
        for (const share of [0.3, 0.7])
          heights.add(Math.max(0, Math.min(last, Math.round(place - share * screen))));
    for (const y of heights) {
      const at = await page.evaluate((top) => {
        scrollTo({ top, behavior: 'instant' });
        return new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done(scrollY))));
      }, y);
      await take({ x: 0, y: at, width, height: screen }, false);
    }
    await page.evaluate(() => scrollTo({ top: 0, behavior: 'instant' }));
  };
  for (const mode of ['ids', 'controls']) {
    const { painted, ...size } = await page.evaluate(paint, mode);
    found.size ??= size;
    const best = new Map();
    for (const one of painted) Object.assign(one, { twice: 0, inkOnWhole: 0 });
    if (mode === 'ids') byNumber = painted;
    let isFirst = true;
    await shots(size.height, (data, top, across) => {
      const here = new Map();
      const owned = mode === 'ids' && isFirst ? (owners = new Uint32Array(data.length / 3)) : null;
      isFirst = false;
      for (let i = 0, x = 0, y = 0; i < data.length; i += 3) {
        const [r, g, b] = [data[i] - 1, data[i + 1] - 2, data[i + 2] - 129];
        if (r % 4 === 0 && g % 4 === 0 && b >= 0 && b <= 60 && b % 4 === 0) {
          const id = (r >> 2) | ((g >> 2) << 6) | ((b >> 2) << 12);
          if (id > 0 && id <= painted.length) {
            let ink = here.get(id);
            if (!ink) here.set(id, (ink = { count: 0, outside: 0 }));
            ink.count++;
            if (owned) {
              owned[i / 3] = id;
              painted[id - 1].inkOnWhole++;
            }
            const { box } = painted[id - 1];
            if (
              box &&
              (x < box.x - LEAST_PX ||
                x > box.x + box.width + LEAST_PX ||
                y + top < box.y - LEAST_PX ||
                y + top > box.y + box.height + LEAST_PX)
            )
              ink.outside++;
          }
        }
        if (++x === across) [x, y] = [0, y + 1];
      }
      for (const [id, ink] of here) if (ink.count > (best.get(id)?.count ?? 0)) best.set(id, ink);
    });
    found[mode] = new Map(painted.map((one) => [one.index, { ...one, ink: best.get(one.id) ?? null }]));
  }
  // Whose ink a pixel is, and whether it is painted twice. Bold letters that a font does not have are drawn twice everywhere.
  const { height } = await page.evaluate(paint, 'layers');
  await shots(
    height,
    (data) => {
      for (let i = 0, at = 0; i < data.length && at < owners.length; i += 3, at++) {
        if (data[i] >= 100 || owners[at] === 0) continue;
        byNumber[owners[at] - 1].twice++;
      }
    },
    true,
  );
  return found;
}

/** What a page has below the pictures was not seen at all, or on its last screen only. */
const isBelow = ({ rect }) => rect.y + rect.height > LONGEST;

/**
 * What a mistake harms, by comparing what is seen with and without it.
 * @returns kinds of harm, each with where it is, px of the page
 */
export function harmsOf(before, after, change) {
  const harms = [];
  for (const [index, now] of after.ids) {
    const was = before.ids.get(index);
    if (!was?.ink || was.ink.count < LEAST_INK) continue;
    if (was.words !== now.words && !change.alters) continue;
    // Larger type has more ink; changed words have other ink, and are judged by what lies on them and leaves their box alone.
    const expected = was.ink.count * (now.fontSize / was.fontSize) ** 2;
    const isLarger = now.fontSize !== was.fontSize;
    // Letters don't get all their ink by the square of their size.
    const slack = isLarger ? 0.2 : 0;
    const lost = was.words === now.words ? 1 - (now.ink?.count ?? 0) / expected - slack : 0;
    // Words on words, beyond what was painted twice before for every pixel of its ink.
    const rate = (one) => (one.inkOnWhole === 0 ? 0 : one.twice / one.inkOnWhole);
    const twice = now.twice - rate(was) * now.inkOnWhole;
    if (twice > DOUBT_TWICE && rate(now) - rate(was) > TWICE_SHARE)
      harms.push({
        kind: twice > LEAST_TWICE ? 'twice' : 'doubt',
        px: Math.round(twice),
        words: now.words,
        rect: now.rect,
        index,
      });
    // What stands in a scroll box of its own is not scrolled to here, so that what it loses may be there all the same.
    // Nor is it lost where an ellipsis shortens the words without the mistake as with it.
    const isReachable = now.scrolls || (was.shortened && now.shortened);
    const isLost =
      lost > LOST_SHARE && lost * expected > LEAST_LOST && !isReachable && !isBelow(now) && !isBelow(was);
    if (lost > DOUBT_SHARE)
      harms.push({
        kind: isLost ? 'lost' : 'doubt',
        share: lost,
        words: now.words,
        rect: now.rect,
        index,
      });
    const outside = (now.ink?.outside ?? 0) - (was.ink.outside ?? 0);
    if (now.ink && outside > LEAST_OUTSIDE)
      harms.push({
        kind: outside > LEAST_INK ? 'outside' : 'doubt',
        px: outside,
        words: now.words,
        rect: now.rect,
        box: now.box,
        index,
      });
  }
  for (const [index, was] of before.controls) {
    const now = after.controls.get(index);
    if (!was.ink || was.ink.count < 200 || isBelow(was) || (now && isBelow(now))) continue;
    const area = now ? now.rect.width * now.rect.height : was.ink.count;
    const expected = Math.min(
      was.ink.count,
      area * (was.ink.count / Math.max(1, was.rect.width * was.rect.height)),
    );
    const lost = 1 - (now?.ink?.count ?? 0) / expected;
    if (now?.scrolls) continue;
    if (lost > CONTROL_SHARE)
      harms.push({ kind: 'control', share: lost, words: was.words, rect: now?.rect ?? was.rect, index });
  }
  const wider = after.size.width - before.size.width;
  if (wider > LEAST_PX) harms.push({ kind: 'sideways', px: wider, rect: null });
  return harms;
}

export const placeOf = (page, path) => page.evaluate(rectOf, path);
