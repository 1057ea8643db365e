import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { isoptic, manifestOf, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;

/** Pages by name: a fault, and the same page without it. */
const CASES: Record<string, { readonly rule: string; readonly fault: string; readonly repaired: string }> = {
  zoom: {
    rule: 'zoom-locked',
    fault: '<meta name="viewport" content="width=device-width, user-scalable=no"><p>Times</p>',
    repaired: '<p>Times</p>',
  },
  narrow: {
    rule: 'viewport-fixed',
    fault: '<meta name="viewport" content="width=320"><p>Times</p>',
    repaired: '<p>Times</p>',
  },
  small: {
    rule: 'small-text',
    fault: '<p style="font-size: 10px">Conditions of carriage</p>',
    repaired: '<p style="font-size: 14px">Conditions of carriage</p>',
  },
  tight: {
    rule: 'tight-lines',
    fault: '<h2 style="font: 30px/0.76 Arial; max-width: 200px">Crossings by day and by night</h2>',
    repaired: '<h2 style="font: 30px/1.1 Arial; max-width: 200px">Crossings by day and by night</h2>',
  },
  pieces: {
    rule: 'broken-words',
    fault:
      '<style>i { display: flex; font: 16px Arial } b { flex: 1; min-width: 0; overflow-wrap: anywhere } u { flex: none; width: calc(100% - 20px) }</style><i><b>Crossings</b><u>18:40</u></i>',
    repaired: '<i style="display: flex; font: 16px Arial"><b>Crossings</b><u>18:40</u></i>',
  },
  long: {
    rule: 'long-lines',
    fault: `<p style="font: 5px Arial; zoom: 1">${'All boats call at the quay. '.repeat(20)}</p>`,
    repaired: `<p style="font: 14px Arial">${'All boats call at the quay. '.repeat(20)}</p>`,
  },
  targets: {
    rule: 'small-target',
    fault:
      '<style>i a { display: inline-block; font: 12px/14px Arial }</style><i><a href="/1">1</a> <a href="/2">2</a></i>',
    repaired:
      '<label style="display: block; padding: 12px"><input type="radio" style="margin: 0"> One way</label><a href="/1">Fares</a>',
  },
  hover: {
    rule: 'hover-only',
    fault:
      '<style>.m .sub { display: none } .m:hover > .sub { display: block }</style><div class="m"><a href="/t">Times</a><div class="sub"><a href="/s">Summer</a></div></div>',
    repaired:
      '<style>.m .sub { display: none } .m:hover > .sub, .m:focus-within > .sub { display: block }</style><div class="m"><a href="/t">Times</a><div class="sub"><a href="/s">Summer</a></div></div>',
  },
  script: {
    rule: 'hover-only',
    fault:
      '<style>@media (hover: hover) { .m:hover .sub { visibility: visible } } .sub { visibility: hidden }</style><div class="m"><b>Times</b><p class="sub">Boats in summer</p></div>',
    repaired:
      '<style>.m:hover .sub, .m.open .sub { visibility: visible } .sub { visibility: hidden }</style><div class="m"><b>Times</b><p class="sub">Boats in summer</p></div>',
  },
  soft: {
    rule: 'picture-soft',
    fault: '<img src="small.png" alt="Pier" width="300" height="200">',
    repaired:
      '<img src="small.png" srcset="large.png 600w, small.png 150w" sizes="300px" alt="Pier" width="300" height="200">',
  },
  oversized: {
    rule: 'picture-oversized',
    fault: '<img src="huge.png" alt="Pier" width="60" height="40">',
    repaired:
      '<picture><source srcset="small.png 2x"><img src="huge.png" alt="Pier" width="60" height="40"></picture>',
  },
  stretched: {
    rule: 'picture-stretched',
    fault: '<img src="large.png" alt="Pier" width="300" height="300">',
    repaired: '<img src="huge.png" alt="Pier" width="300" height="300" style="object-fit: cover">',
  },
  broken: {
    rule: 'picture-broken',
    fault: '<img src="broken.png" alt="Pier">',
    repaired: '<img src="large.png" alt="Pier" width="300">',
  },
};

beforeAll(async () => {
  temp = await temporaryFolder();
  const picture = async (name: string, width: number) =>
    writeFile(
      join(temp.path, name),
      await sharp({ create: { width, height: (width * 2) / 3, channels: 3, background: '#286' } })
        .png()
        .toBuffer(),
    );
  await picture('small.png', 150);
  await picture('large.png', 600);
  await picture('huge.png', 1500);
  await writeFile(join(temp.path, 'broken.png'), 'no picture at all');
  const page = (body: string) =>
    `<!doctype html><html lang="en"><title>Case</title>${/name="viewport"/.test(body) ? '' : '<meta name="viewport" content="width=device-width">'}<body>${body}`;
  for (const [name, { fault, repaired }] of Object.entries(CASES)) {
    await writeFile(join(temp.path, `${name}-fault.html`), page(fault));
    await writeFile(join(temp.path, `${name}-repaired.html`), page(repaired));
  }
});
afterAll(() => temp.dispose());

test('each fault is found on a phone by its rule, and its repaired twin has nothing of the kind', async () => {
  const outcome = await isoptic([
    'check',
    temp.path,
    '--all',
    '--on',
    'ios-phone-390',
    '--shots',
    'none',
    '--json',
    '--out',
    join(temp.path, 'run'),
  ]);
  const { findings, pages } = manifestOf(outcome);
  const rulesOf = (source: string) => {
    const page = pages.find((entry) => entry.source === source)!.id;
    return findings.filter((finding) => finding.pages.includes(page)).map(({ rule }) => rule);
  };
  for (const [name, { rule }] of Object.entries(CASES)) {
    expect([name, rulesOf(`${name}-fault.html`).filter((found) => found === rule)]).toEqual([name, [rule]]);
    expect([name, rulesOf(`${name}-repaired.html`)]).toEqual([name, []]);
  }
});

test('a menu that breaks, a card left alone and a label in two lines count where a wider screen is free of them', async () => {
  const file = join(temp.path, 'flow.html');
  await writeFile(
    file,
    `<!doctype html><html lang="en"><title>Flow</title><meta name="viewport" content="width=device-width"><style>
body { margin: 0; font: 16px/1.5 Arial } ul { display: flex; gap: 12px; list-style: none; padding: 8px; margin: 0 }
.row { display: flex; flex-wrap: wrap; gap: 10px } .row div { flex: 0 0 120px; height: 60px; background: #dee }
button { width: 28%; font-size: 16px }</style>
<nav><ul><li><a href="/1">Today’s crossings</a></li><li><a href="/2">Fares</a></li><li><a href="/3">Islands of the south</a></li><li><a href="/4">Help</a></li></ul></nav>
<div class="row"><div>Heron</div><div>Tern</div><div>Petrel</div></div><button>Book this crossing</button>`,
  );
  const on = async (...sizes: string[]) => {
    const out = join(temp.path, `flow-${sizes.length}`);
    const at = sizes.flatMap((size) => ['--at', size]);
    await isoptic(['check', file, ...at, '--shots', 'none', '--out', out]);
    const { findings } = JSON.parse(await readFile(join(out, 'run.json'), 'utf8')) as ReturnType<
      typeof manifestOf
    >;
    return findings.map(({ rule, seen }) => [rule, ...seen.map(({ profile }) => profile)]);
  };
  expect(await on('340x700+mobile')).toEqual([]);
  expect((await on('340x700+mobile', '900x700+mobile')).sort()).toEqual([
    ['entry-wraps', '340x700+mobile'],
    ['label-wraps', '340x700+mobile'],
    ['lone-item', '340x700+mobile'],
  ]);
});
