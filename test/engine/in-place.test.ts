import { mkdir, writeFile } from 'node:fs/promises';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import pLimit from 'p-limit';
import sharp from 'sharp';
import { pickProfiles } from '../../src/api/check.js';
import type { LayoutSnapshot } from '../../src/core/layout/snapshot.js';
import type { Size } from '../../src/core/profile/profile.js';
import { resizedDevice } from '../../src/core/profile/resize.js';
import type { BrowserSession } from '../../src/engine/engine.js';
import { openTargets, type SitePage } from '../../src/site/targets.js';
import { writeBenchSite } from '../support/bench-site.js';
import { jobOf } from '../support/job.js';
import { launched } from '../support/launch.js';
import { temporaryFolder } from '../support/program.js';
import { isInVerify, numberOf } from '../support/sampled.js';

let browser: BrowserSession;
/** The kind of browser that pages are given one size after another in. */
let resizing: BrowserSession;
let temp: Awaited<ReturnType<typeof temporaryFolder>>;
beforeAll(async () => {
  temp = await temporaryFolder();
  [browser, resizing] = await Promise.all([
    launched({ fonts: 'android' }),
    launched({ fonts: 'android', frames: 'free' }),
  ]);
});
afterAll(async () => {
  await Promise.all([browser.close(), resizing.close()]);
  await temp.dispose();
});

/** All of a layout as plain data, but for the numbers that elements have in their own page alone. */
function plain(snapshot: LayoutSnapshot): unknown {
  return JSON.parse(
    JSON.stringify(snapshot, (key, value: unknown) => {
      if (key === 'uid') return undefined;
      return ArrayBuffer.isView(value) ? Array.from(value as Float64Array) : value;
    }),
  );
}

/**
 * Pages whose layout at some size is another one when they are resized to it than when they are loaded at it.
 * @param sizesOf the sizes that a page is given, by its file
 */
async function differing(
  targets: string[],
  start: string,
  sizesOf: (source: string) => readonly Size[],
): Promise<string[]> {
  const [device] = await pickProfiles([start]);
  const site = await openTargets(targets, { all: true });
  const compared = async ({ url, source }: SitePage): Promise<string[]> => {
    const found: string[] = [];
    const page = await resizing.open(jobOf(url, device!));
    await page.settle('loaded');
    await page.collect({ locate: [] });
    for (const size of sizesOf(source)) {
      await page.resize(size);
      await page.settle('resized');
      const resized = plain(await page.collect({ locate: [] }));
      const fresh = await browser.open(jobOf(url, resizedDevice(device!, size)));
      await fresh.settle('loaded');
      const loaded = plain(await fresh.collect({ locate: [] }));
      await fresh.close();
      if (JSON.stringify(resized) !== JSON.stringify(loaded)) found.push(`${source} at ${size.width}`);
    }
    await page.close();
    return found;
  };
  const limit = pLimit(2);
  const found = (await Promise.all(site.pages.map((page) => limit(() => compared(page))))).flat();
  await site.close();
  return found;
}

describe('a page resized in place is laid out as one loaded at that size', () => {
  it('on every page of the demo, as a phone and as a window', async () => {
    const sites = ['demo/as-found', 'demo/repaired'];
    const sizes = [
      { width: 1180, height: 820 },
      { width: 320, height: 568 },
    ];
    // Of each page one of the two in `npm test`, as a phone and as a window the other one; `npm run verify` takes both.
    const oneOf = (which: number) => (source: string) =>
      isInVerify ? sizes : [sizes[(numberOf(source) + which) % 2]!];
    expect(await differing(sites, '390x844@2+mobile', oneOf(0))).toEqual([]);
    expect(await differing(sites.slice(0, 1), '1280x800', oneOf(1))).toEqual([]);
  });

  it('on pages of the collection', async () => {
    const folder = join(temp.path, 'collection');
    expect(await writeBenchSite(folder, 80, 20)).toBeGreaterThan(10);
    const sizes = [
      { width: 900, height: 844 },
      { width: 320, height: 700 },
    ];
    // Each of them at one: there are many pages of a kind.
    const oneOf = (source: string) => sizes.filter((_, i) => i === numberOf(source) % sizes.length);
    expect(await differing([folder], '390x844@2+mobile', oneOf)).toEqual([]);
    // One of twenty, in `npm run verify`, take minutes; ISOPTIC_ALL=every takes all.
  }, 1_200_000);
});

/** What goes by the width of the window though no media query turns, each in a page of its own. */
const GOES_BY_WIDTH = {
  'fluid-type':
    '<style>main { font-size: 2vw } h1 { margin: 1em; border-radius: 1em; max-width: 20em }</style>',
  variable:
    '<style>:root { --room: 3vw } h1 { padding: var(--room); width: calc(100% - var(--room)) }</style>',
  'of-the-root': '<style>html { font-size: calc(8px + 1vw) } h1 { width: 12rem; text-indent: 1rem }</style>',
  container:
    '<style>main { container-type: inline-size } @container (width > 500px) { h1 { opacity: 0.5; position: relative } }</style>',
  shares: '<style>h1 { padding: 0 5%; transform: translateX(10%); width: 50% }</style>',
  'share-in-a-variable':
    '<style>:root { --side: 5% } h1 { padding: 0 var(--side); border: 1px solid }</style>',
  'of-its-own': '<style>h1 { width: 50vw; border: 1px solid; left: 1vw; position: relative }</style>',
  inline: '<h2 style="font-size: 3vw; line-height: 1.2">In its own attribute</h2>',
  state:
    '<style>input:checked ~ h1 { position: absolute; color: red } :has(:checked) p { white-space: nowrap }</style><input type="checkbox"><script>const set = () => (document.querySelector("input").checked = innerWidth > 500); addEventListener("resize", set); set()</script>',
  named:
    '<style>.wide h1 { display: inline-block; overflow: hidden }</style><script>const set = () => document.documentElement.classList.toggle("wide", innerWidth > 500); addEventListener("resize", set); set()</script>',
  words:
    '<style>h2 { letter-spacing: 2px } .item { display: flex }</style><h2></h2><div id="row"><b>Deck</b></div><script>const set = () => { document.querySelector("h2").textContent = innerWidth > 500 ? "Upper deck" : ""; document.querySelector("#row").className = innerWidth > 500 ? "item" : ""; }; addEventListener("resize", set); set()</script>',
  written:
    '<style>.b { border: 1px solid } em { padding: 0 1em }</style><section class="a"><div class="b">Deck <em>two</em></div></section><script>const set = () => { const a = document.querySelector(".a"); a.className = "a"; a.style.fontSize = innerWidth > 500 ? "30px" : "12px"; a.style.whiteSpace = innerWidth > 500 ? "nowrap" : ""; }; addEventListener("resize", set); set()</script>',
  asked:
    '<style>[style*="color"] ~ h1 { position: absolute; text-indent: 2em }</style><i></i><script>const set = () => document.querySelector("i").setAttribute("style", innerWidth > 500 ? "color: red" : ""); addEventListener("resize", set); set()</script>',
  drawn:
    '<style>p { opacity: 0.9 }</style><canvas></canvas><script>const set = () => { const c = document.querySelector("canvas"); c.width = Math.floor(innerWidth / 3); c.style.height = c.width / 2 + "px"; }; addEventListener("resize", set); set()</script>',
  'drawn-anew':
    '<style>p { opacity: 0.9 } svg text { font-size: 12px } svg .wide { font-size: 30px; opacity: 0.5 } svg + h1 { text-indent: 2em }</style><svg width="300" height="80"></svg><script>const set = () => { const chart = document.querySelector("svg"); chart.setAttribute("width", Math.floor(innerWidth / 3)); chart.innerHTML = `<g><text y="40" class="${innerWidth > 500 ? "wide" : ""}">Boats</text><rect x="20" width="${innerWidth / 10}" height="60" fill="#357"></rect><foreignObject y="50" width="90" height="20"><b>${innerWidth}</b></foreignObject></g>`; chart.querySelector("g").setAttribute("transform", `translate(${innerWidth / 50})`); }; addEventListener("resize", set); set()</script>',
  'drawing-looked-into':
    '<style>h1 { opacity: 0.9 } main:has(.wide) h1 { opacity: 0.5; position: absolute }</style><svg width="300" height="80"></svg><script>const set = () => { document.querySelector("svg").innerHTML = `<text y="40" class="${innerWidth > 500 ? "wide" : ""}">Boats</text>`; }; addEventListener("resize", set); set()</script>',
  'drawing-among-others':
    '<style>svg.wide + h1 { opacity: 0.5; float: left }</style><svg width="300" height="80"><text y="40">Boats</text></svg><script>const set = () => { const chart = document.querySelector("svg"); chart.setAttribute("class", innerWidth > 500 ? "wide" : ""); chart.innerHTML = "<text y=40>Boats</text>"; }; addEventListener("resize", set); set()</script>',
  'taken-back':
    '<style>.wide h1 { float: left }</style><script>const set = () => { const { classList } = document.documentElement; classList.add("wide"); classList.remove("wide"); classList.toggle("wide", innerWidth > 500); }; addEventListener("resize", set); set()</script>',
  unboxed:
    '<style>.flat { display: contents; background: red; padding: 9px; position: relative }</style><div id="u">Deck <b>two</b></div><script>const set = () => { document.querySelector("#u").className = innerWidth > 500 ? "flat" : ""; }; addEventListener("resize", set); set()</script>',
  meters:
    '<style>main { font-size: 2vw }</style><meter value="0.5"></meter><fieldset><legend>Deck</legend></fieldset>',
} as const;

describe('what goes by the width of the window without a media query', () => {
  it('is read anew at each size', async () => {
    const folder = join(temp.path, 'by-width');
    await mkdir(folder);
    for (const [name, head] of Object.entries(GOES_BY_WIDTH))
      await writeFile(
        join(folder, `${name}.html`),
        `<!doctype html><meta name="viewport" content="width=device-width"><title>${name}</title><main>${head}<h1>Lantern Isles</h1><p>Ferries to every island, every day of the week.</p></main>`,
      );
    const sizes = [900, 400, 901, 620].map((width) => ({ width, height: 700 }));
    expect(await differing([folder], '1280x800', () => sizes)).toEqual([]);
  });
});

describe('style sheets of another origin, which a page can not read', () => {
  const SHEETS: Readonly<Record<string, string>> = {
    '/fluid.css':
      'h1 { font-size: 3vw; padding: 0 5% } @media (width > 500px) { p { float: left; text-indent: 2em } }',
    '/importing.css': '@import url(fluid.css); p { border: 1px solid }',
  };

  it('are taken into account at each size, whether they come, import others or fail', async () => {
    const elsewhere = createServer(({ url }, answer) => {
      const css = SHEETS[url!];
      answer.writeHead(css === undefined ? 404 : 200, { 'content-type': 'text/css' }).end(css);
    });
    await new Promise<void>((resolve) => elsewhere.listen(0, '127.0.0.1', resolve));
    const { port } = elsewhere.address() as AddressInfo;
    const folder = join(temp.path, 'elsewhere');
    await mkdir(folder);
    for (const names of [['fluid'], ['importing'], ['gone', 'fluid'], ['gone']]) {
      const links = names.map(
        (name) => `<link rel="stylesheet" href="http://127.0.0.1:${port}/${name}.css">`,
      );
      await writeFile(
        join(folder, `${names.join('-')}.html`),
        `<!doctype html><title>Elsewhere</title>${links.join('')}<h1>Lantern Isles</h1><p>Ferries to every island, every day of the week.</p>`,
      );
    }
    const sizes = [900, 400, 901, 620, 401].map((width) => ({ width, height: 700 }));
    expect(await differing([folder], '1280x800', () => sizes)).toEqual([]);
    await new Promise((resolve) => elsewhere.close(resolve));
  });
});

describe('the screen of an open page', () => {
  it.each([
    ['as a screen shows it', () => browser],
    ['in a browser that makes frames when it is asked', () => resizing],
  ])(
    'is given frame by frame, with how far the page is scrolled, until the reader stops: %s',
    async (_, of) => {
      const site = await openTargets(['demo/as-found/index.html'], { all: false });
      const [device] = await pickProfiles(['390x844@2+mobile']);
      const page = await of().open(jobOf(site.pages[0]!.url, device!));
      await page.settle('loaded');
      const scrolled: number[] = [];
      const largest = { width: 200, height: 400 };
      for await (const { jpeg, scroll } of page.frames({ largest, every: 1, quality: 50 })) {
        const { format, width, height } = await sharp(jpeg).metadata();
        expect([format, width <= largest.width, height <= largest.height]).toEqual(['jpeg', true, true]);
        scrolled.push(scroll.y);
        if (scrolled.includes(500)) break;
        await page.dispatch({ kind: 'run', script: 'scrollTo(0, 500)' });
      }
      expect(scrolled.length).toBeGreaterThan(1);
      // What was stopped does not stand in the way of the next reader.
      for await (const { scroll } of page.frames({ largest, every: 1, quality: 50 })) {
        expect(scroll.y).toBe(500);
        break;
      }
      await page.close();
      await site.close();
    },
  );
});

describe('an element of an open page', () => {
  it('keeps its number when others come and go, and a new one gets one of its own', async () => {
    const site = await openTargets(['demo/as-found/index.html'], { all: false });
    const [device] = await pickProfiles(['390x844@2+mobile']);
    const page = await browser.open(jobOf(site.pages[0]!.url, device!));
    await page.settle('loaded');
    const request = { locate: ['main h2', 'footer', 'body > p.new'] };
    const uidsOf = ({ nodes, matches }: LayoutSnapshot) =>
      matches.map((match) => match.nodes.map((row) => nodes.uid[row]!));
    const before = await page.collect(request);
    expect(new Set(before.nodes.uid).size).toBe(before.nodes.count);

    await page.dispatch({
      kind: 'run',
      script: `document.body.insertAdjacentHTML('afterbegin', '<p class="new">New</p>'); document.querySelector('main h2').remove();`,
    });
    const after = await page.collect(request);
    const [headings, footer, fresh] = uidsOf(before);
    expect(fresh).toEqual([]);
    expect(uidsOf(after)[0]).toEqual(headings!.slice(1));
    expect(uidsOf(after)[1]).toEqual(footer);
    expect([...before.nodes.uid]).not.toContain(uidsOf(after)[2]![0]);
    await page.close();
    await site.close();
  });

  it('is read with what a script changed in the style sheets and in the tree since', async () => {
    const site = await openTargets(['demo/as-found/index.html'], { all: false });
    const [device] = await pickProfiles(['390x844@2+mobile']);
    const page = await browser.open(jobOf(site.pages[0]!.url, device!));
    await page.settle('loaded');
    const opacityOfHeading = async () => {
      const { nodes, styles, strings, styleProperties, matches } = await page.collect({ locate: ['h1'] });
      const row = nodes.style[matches[0]!.nodes[0]!]!;
      return strings[styles[row * styleProperties.length + styleProperties.indexOf('opacity')]!];
    };
    const run = (script: string) => page.dispatch({ kind: 'run', script });
    expect(await opacityOfHeading()).toBe('1');
    await run(`document.styleSheets[0].insertRule('h1.faint { opacity: 0.5 }')`);
    expect(await opacityOfHeading()).toBe('1');
    await run(`document.querySelector('h1').className = 'faint'`);
    expect(await opacityOfHeading()).toBe('0.5');
    await run(`document.querySelector('h1').style.opacity = '0.25'`);
    expect(await opacityOfHeading()).toBe('0.25');
    await run(`document.querySelector('h1').removeAttribute('style'); document.styleSheets[0].deleteRule(0)`);
    expect(await opacityOfHeading()).toBe('1');
    await page.close();
    await site.close();
  });
});
