import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import sharp from 'sharp';
import { isoptic, readManifest, serve, temporaryFolder } from '../support/program.js';

const FONT = '@expo-google-fonts/roboto-mono/400Regular/RobotoMono_400Regular.ttf';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let server: Awaited<ReturnType<typeof serve>>;
let picture: Buffer;
let font: Buffer;
let polls = 0;
const head =
  '<!doctype html><html lang="en"><meta name="viewport" content="width=device-width, initial-scale=1"><title>P</title><style>body{margin:0}</style>';

const PAGES: Record<string, string> = {
  '/lazy':
    '<div style="height:3000px"></div><img loading="lazy" src="/slow.png" width="100" height="100" style="display:block">',
  '/jump':
    '<div id="a" style="height:100px;background:#00f"></div><script>setTimeout(() => { document.querySelector("#a").style.height = "300px" }, 60)</script>',
  '/slide':
    '<style>@keyframes s{from{transform:translateX(-200px)}to{transform:none}}#a{width:100px;height:100px;background:#0a0;animation:s 5s both}</style><div id="a"></div>',
  '/spinner':
    '<style>@keyframes s{to{transform:rotate(1turn)}}#a{width:60px;height:60px;border-top:9px solid #a00;animation:s 1s linear infinite}</style><div id="a"></div>',
  '/smooth':
    '<style>html{scroll-behavior:smooth}</style><div style="height:4000px;background:linear-gradient(#fff,#000)"></div>',
  '/late-font':
    '<style>@font-face{font-family:Late;src:url(/late.ttf);font-display:swap}p{font:40px/1.2 Late,serif;background:#0a0}</style><p>Evening crossings from Lantern</p>',
  '/polling': '<p>Waiting.</p><script>(async function poll() { for (;;) await fetch("/poll") })()</script>',
};

const SLOW: Record<string, string> = {
  '/loading':
    '<div id="l" style="position:fixed;inset:0;z-index:9;background:#c00">Loading…</div><div style="height:100px;background:#00f"></div><p>The timetable of the northern isles, of the southern isles, and of the night boat to the mainland.</p><script>setTimeout(() => document.querySelector("#l").remove(), 900)</script>',
  '/resized':
    '<div id="r" style="width:100px;height:2000px;background:#0a0"></div><script>const listen = () => addEventListener("resize", () => (document.querySelector("#r").style.background = "#c00")); addEventListener("load", () => setTimeout(listen, 60))</script>',
  '/part':
    '<style>body{height:100vh;overflow:hidden}</style><div id="t" style="position:fixed;top:0;left:0;width:100px;height:100px;background:#c00"></div><main style="height:100vh;overflow:auto"><div style="height:3000px"></div><p id="e">To the end</p></main><script>new IntersectionObserver(([e]) => { if (e.isIntersecting) document.querySelector("#t").style.background = "#0a0" }).observe(document.querySelector("#e"))</script>',
  '/barred': '<div style="width:40px;height:2000px;margin-left:auto;background:#0a0"></div>',
};

beforeAll(async () => {
  temp = await temporaryFolder();
  picture = await sharp({ create: { width: 100, height: 100, channels: 3, background: '#c0f' } })
    .png()
    .toBuffer();
  font = await readFile(createRequire(import.meta.url).resolve(FONT));
  server = await serve((request, response) => {
    const path = request.url ?? '/';
    if (path === '/slow.png')
      setTimeout(() => response.writeHead(200, { 'content-type': 'image/png' }).end(picture), 300);
    else if (path === '/late.ttf')
      setTimeout(() => response.writeHead(200, { 'content-type': 'font/ttf' }).end(font), 400);
    else if (path === '/poll') setTimeout(() => response.end(String(++polls)), 30);
    else
      response.writeHead(200, { 'content-type': 'text/html' }).end(head + (PAGES[path] ?? SLOW[path] ?? ''));
  });
});
afterAll(async () => {
  await server.close();
  await temp.dispose();
});

async function capture(out: string, paths = Object.keys(PAGES)): Promise<string> {
  const urls = paths.map((path) => server.origin + path);
  const outcome = await isoptic([
    'check',
    ...urls,
    '--on',
    'ios-phone-390',
    '--quiet',
    '--out',
    join(temp.path, out),
  ]);
  expect(outcome.status).toBe(0);
  const hash = createHash('sha256');
  for (const path of paths) {
    for (const kind of ['fold', 'full'])
      hash.update(await readFile(join(temp.path, out, 'shots', path.slice(1), `ios-phone-390.${kind}.png`)));
  }
  return hash.digest('hex');
}

async function pixel(page: string, x: number, y: number, run = 'first', profile = 'ios-phone-390') {
  const { data, info } = await sharp(join(temp.path, run, 'shots', page, `${profile}.full.png`))
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return [...data.subarray((y * info.width + x) * 3, (y * info.width + x) * 3 + 3)];
}

test('what comes late is in the picture: lazy pictures, a jump of the layout, the end of an animation', async () => {
  await capture('first');
  expect(await pixel('lazy', 50, 3050)).toEqual([0xcc, 0, 0xff]);
  expect(await pixel('jump', 50, 250)).toEqual([0, 0, 0xff]);
  expect(await pixel('slide', 50, 50)).toEqual([0, 0xaa, 0]);
  // Three lines in the late font, two in the one that stands in for it.
  expect(await pixel('late-font', 380, 40 + 2 * 48 + 24)).toEqual([0, 0xaa, 0]);
  const manifest = await readManifest(join(temp.path, 'first'));
  const notes = Object.fromEntries(manifest.renders.map((render) => [render.page, render.notes]));
  expect(notes).toEqual({
    lazy: [],
    jump: [],
    slide: [],
    spinner: [],
    smooth: [],
    'late-font': [],
    polling: ['the network was never quiet'],
  });
});

test('captures of moving pages are the same to the byte', async () => {
  // The one that is never quiet does not move, and each time it is waited for in vain.
  const moving = Object.keys(PAGES).filter((path) => path !== '/polling');
  const digests = new Set<string>();
  for (let i = 0; i < 3; i++) digests.add(await capture(`again-${i}`, moving));
  expect(digests.size).toBe(1);
});

test('a loading screen is waited for', async () => {
  const out = join(temp.path, 'loading');
  await isoptic(['check', `${server.origin}/loading`, '--on', 'ios-phone-390', '--quiet', '--out', out]);
  expect(await pixel('loading', 50, 50, 'loading')).toEqual([0, 0, 0xff]);
  expect((await readManifest(out)).renders[0]!.notes).toEqual([]);
});

test('the whole page is pictured as wide as it is on the screen, beside its scroll bar', async () => {
  const out = join(temp.path, 'barred');
  await isoptic(['check', `${server.origin}/barred`, '--at', '600x400', '--quiet', '--out', out]);
  const { width } = (await readManifest(out)).renders[0]!.document!;
  expect(width).toBeLessThan(600);
  expect(await pixel('barred', width - 1, 300, 'barred', '600x400')).toEqual([0, 0xaa, 0]);
  expect(await pixel('barred', width - 39, 300, 'barred', '600x400')).toEqual([0, 0xaa, 0]);
});

test('a page that changes when its window is resized is pictured as it was measured', async () => {
  const out = join(temp.path, 'resized');
  await isoptic(['check', `${server.origin}/resized`, '--on', 'ios-phone-390', '--quiet', '--out', out]);
  expect(await pixel('resized', 50, 1500, 'resized')).toEqual([0, 0xaa, 0]);
});

test('what an application scrolls in the place of its page is scrolled through as a page is', async () => {
  await capture('part', ['/part']);
  expect(await pixel('part', 50, 50, 'part')).toEqual([0, 170, 0]);
});
