import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { isoptic, manifestOf, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;

beforeAll(async () => {
  temp = await temporaryFolder();
});
afterAll(() => temp.dispose());

const picture = (inside: string) =>
  `<img class="over" width="200" height="50" alt="" src='data:image/svg+xml,<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 200 50">${inside}</svg>'>`;
const spot = (id: string, words: string, over: string) =>
  `<div class="spot"><p id="${id}">${words}</p>${over}</div>`;

/** Pixels alone tell which of these words can be read. */
const PAGE = `<!doctype html><meta name="viewport" content="width=device-width"><title>Looks</title>
<style>body { margin: 16px; width: 340px; font: 16px/24px Arial, sans-serif }
.spot { position: relative; margin-bottom: 90px } .over { position: absolute; left: 0; top: 0 } p { margin: 0 }
.box { width: 160px; height: 60px; border-radius: 30px; background: #fc6 }
.turned { left: 20px; top: -30px; width: 200px; height: 60px; background: #246; transform: rotate(40deg) }</style>
${spot('clear', 'Under a picture that is clear where they stand.', picture('<path d="M0 48h200" stroke="red"/>'))}
${spot('gone', 'Under a picture that is not.', picture('<rect width="200" height="50" fill="teal"/>'))}
${spot('corner', 'By the corner of a round box.', '<div class="over box" style="left: -156px; top: 14px"></div>')}
${spot('turned', 'Under a box that is turned by nearly an eighth.', '<div class="over turned"></div>')}`;

const covered = async (...args: string[]) => {
  const result = await isoptic(['check', ...args, '--fail-on', 'never', '--json'], { cwd: temp.path });
  return manifestOf(result).findings.filter(({ rule }) => rule === 'covered');
};

test('pixels decide where boxes alone do not know, and what was seen is kept with the layout', async () => {
  await writeFile(join(temp.path, 'index.html'), PAGE);
  const how = ['--at', '390x844@2+mobile', '--shots', 'none', '--out', 'run'];
  const found = await covered('index.html', ...how);
  const told = found.map(({ message }) => /“([^”]*)”/.exec(message)?.[1]);
  expect(told.sort()).toEqual(['Under a box that is turned by nearly a…', 'Under a picture that is not.']);
  for (const { message } of found) expect(message).toMatch(/By pixels, [1-9]\d* px² of ink lie under it\.$/);
  const again = await covered('--again', 'run', '--out', 'again');
  expect(again.map(({ message }) => message)).toEqual(found.map(({ message }) => message));
});

/** Signs and small drawings over words by their boxes. */
const MARKS = `<!doctype html><meta name="viewport" content="width=device-width"><title>Marks</title>
<style>body { margin: 16px; width: 340px; font: 16px/24px Arial, sans-serif }
p, label { position: relative; margin: 0 0 40px; display: block; white-space: nowrap; width: 300px } .mark { position: absolute; top: 0; right: 0 }
svg { fill: none; stroke: currentColor; stroke-width: 4 }</style>
<p>A question that is as long as its line is wide<span class="mark">▼▼</span></p>
<p>A line that ends beside its sign, as is meant<span class="mark" style="top: -9px; font-size: 12px">··</span></p>
<p>A line with a drawing on the end of its letters<svg class="mark" width="24" height="24"><path d="M2 2l20 20M22 2l-20 20"/></svg></p>
<p>A line with a drawing that keeps clear of letters<svg class="mark" width="44" height="24"><path d="M1 1h42v22h-42z" stroke-width="1"/></svg></p>
<label><input value="What is written here" style="font: inherit; width: 200px"><svg class="mark" style="left: 4px" width="24" height="24"><circle cx="12" cy="13" r="8"/></svg></label>`;

test('signs and drawings on letters are told by their ink, also where they stand in the words that they lie on', async () => {
  await writeFile(join(temp.path, 'marks.html'), MARKS);
  const how = ['--at', '390x844@2+mobile', '--shots', 'none', '--out', 'marks'];
  const [found, ...others] = await covered('marks.html', ...how);
  // One declaration has put all of them there.
  expect([others, found!.related.length]).toEqual([[], 2]);
  // Judged again, without a browser that could show so, each is a finding.
  const again = await covered('--again', 'marks', '--out', 'marks-again');
  const told = again.map(({ message }) => /“([^”]*)”/.exec(message)?.[1]);
  expect(told.sort()).toEqual([
    'A line with a drawing on the end of it…',
    'A question that is as long as its line…',
    'What is written here',
  ]);
  for (const { message } of again)
    expect(message).toMatch(/^Lies on the text “.*” over .* px² of ink lie under it\.$/);
});

test('a small picture of thin lines on letters counts, one that keeps clear of them does not', async () => {
  const thin = (lines: string) =>
    `<img class="mark" width="24" height="24" alt="" src='data:image/svg+xml,<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24" fill="none" stroke="black" stroke-width="3">${lines}</svg>'>`;
  const page = MARKS.replace(/<p>[^]*/, '');
  await writeFile(
    join(temp.path, 'thin.html'),
    `${page}<p>A line whose end is crossed by a small picture${thin('<path d="M2 6h20M2 14h20"/>')}</p>
<p>A line whose end is framed by a small picture, not more${thin('<path d="M1 1h22v22h-22z" stroke-width="1"/>')}</p>`,
  );
  const found = await covered('thin.html', '--at', '390x844@2+mobile', '--shots', 'none', '--out', 'thin');
  expect(found.map(({ message }) => /“([^”]*)”/.exec(message)?.[1])).toEqual([
    'A line whose end is crossed by a small…',
  ]);
});

const WAVE = `url("data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 100 100' preserveAspectRatio='none'%3E%3Cpath d='M0 0H100V20L0 100z'/%3E%3C/svg%3E")`;
/** Shapes whose form nothing but a picture tells, round words that have room in them and round words that have not. */
const SHAPES = `<!doctype html><meta name="viewport" content="width=device-width"><title>Shapes</title>
<style>body { margin: 16px; width: 340px; font: 16px/24px Arial, sans-serif } p { margin: 0 0 20px; padding: 8px; background: #fc6 }
.star { width: 160px; padding: 68px 0; text-align: center; font-size: 14px; clip-path: path("M80 0L110 50 160 60 120 100 130 160 80 130 30 160 40 100 0 60 50 50z") }
.wave { mask-image: ${WAVE}; mask-size: 100% 100% } .gone { clip-path: path("M0 0H1V1z") }</style>
<p class="star">Half price</p><p class="star" style="white-space: nowrap; font-size: 26px">All of it at half price</p>
<p class="wave" style="padding-bottom: 160px">The evening boat waits.</p>
<p class="wave">The evening boat waits for the last train from the mainland, and for nobody else.</p>
<p class="gone">Waits to be shown by a script.</p>`;

test('what a shape takes of words is seen where no form of it is known', async () => {
  await writeFile(join(temp.path, 'shapes.html'), SHAPES);
  const how = ['--at', '390x844@2+mobile', '--shots', 'none', '--fail-on', 'never', '--json'];
  const { findings } = manifestOf(await isoptic(['check', 'shapes.html', ...how], { cwd: temp.path }));
  expect(findings.map(({ rule, severity }) => [rule, severity])).toEqual([
    ['text-clipped', 'error'],
    ['text-clipped', 'error'],
  ]);
  expect(findings.map(({ message }) => message).sort()).toEqual([
    expect.stringMatching(/“All of it at half price” loses \d\d % to a clip-path/),
    expect.stringMatching(/“The evening boat waits for the last tr…”.* loses? \d\d % to a mask/),
  ]);
});

/** A page that scrolls under a bar of its own. @param style of the bar, and what is done to it @param script run once it is loaded */
const scrolling = (
  style: string,
  script = '',
) => `<!doctype html><meta name="viewport" content="width=device-width"><title>Bars</title>
<style>body { margin: 0; font: 16px/24px Arial, sans-serif } main { padding: 64px 16px } header { position: fixed; top: 0; left: 0; right: 0; padding: 12px 16px; ${style} }
section { position: relative; background: #def; margin-top: 20px }
.on { background: #fff; transition: background 0.4s } .off { transform: translateY(-100%) }</style>
<header>Lantern Isles Ferries</header><main>${'<section>The evening boat waits for the last train from the mainland.</section>'.repeat(40)}</main>
<script>const bar = document.querySelector('header'); ${script}</script>`;
const onScroll = (name: string) =>
  `addEventListener('scroll', () => bar.classList.toggle('${name}', scrollY > 10))`;

test('what passes words that stay on the screen is seen where it passes them, after all that a script does to them there', async () => {
  const pages = {
    through: scrolling('z-index: 1'),
    over: scrolling('background: #fff'),
    front: scrolling('background: #fff; z-index: 1'),
    gets: scrolling('z-index: 1', onScroll('on')),
    leaves: scrolling('z-index: 1', onScroll('off')),
  };
  for (const [name, html] of Object.entries(pages))
    await writeFile(join(temp.path, `bar-${name}.html`), html);
  const files = Object.keys(pages).map((name) => `bar-${name}.html`);
  const how = ['--at', '390x844@2+mobile', '--shots', 'none', '--out', 'bars', '--fail-on', 'never'];
  const findings = manifestOf(
    await isoptic(['check', ...files, ...how, '--json'], { cwd: temp.path }),
  ).findings;
  expect(findings.map(({ page, rule, selector }) => [page, rule, selector])).toEqual([
    ['bar-through', 'text-overlap', 'header'],
    ['bar-over', 'covered', 'header'],
  ]);
  expect(findings[1]!.message).toMatch(
    /^While the page scrolls, section passes over the text “Lantern Isles/,
  );
});
