// Whether what is told of a page of the collection hangs on what is round it: each page as it is, and once more in a box that changes
// nothing of its layout, zoomed in a window that is as much larger, drawn smaller in a smaller one, or at another pixel ratio. Prints what only one of the two tells.
//   node bench/wrapped.mjs [--in NAME[,NAME…]] [--one-of 12] [--check]
import { copyFile, mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { pageOf } from './lib/bench-page.mjs';
import { casesOf } from './lib/cases.mjs';
import { checkSite } from './lib/check-site.mjs';
import { isOfLayout } from './lib/layout-families.mjs';
import { isSampled } from './lib/sampled.mjs';

const here = dirname(fileURLToPath(import.meta.url));
const SIZES = ['360x720+mobile', '900x1000+mobile'];
const inside = (before, after) => (html) =>
  html.replace('<body>', `<body>${before}`).replace('</body>', `${after}</body>`);
const div = (style) => inside(`<div style="${style}">`, '</div>');
/** In the shadow tree of an element, with the page's own styles. */
const shadowed = (html) => {
  const styles = [...html.matchAll(/<style>[^]*?<\/style>/g)].join('');
  return inside(`<div><template shadowrootmode="open">${styles}`, '</template></div>')(html);
};
/** In a frame as large as the window. */
const framed = (html) => {
  const text = html.replace(/&/g, '&amp;').replace(/"/g, '&quot;');
  return `<!doctype html><html lang="en"><head><meta name="viewport" content="width=device-width"><title>Frame</title></head><body style="margin:0"><iframe srcdoc="${text}" style="border:0;display:block;width:100%;height:100vh"></iframe></body></html>`;
};

/** What each does to a page, and the sizes of the window then, in the order of `SIZES`. */
const WAYS = {
  grid: [inside('<div style="display:grid;grid-template-columns:minmax(0,1fr)"><div>', '</div></div>')],
  row: [inside('<div style="display:flex"><div style="flex:1;min-width:0">', '</div></div>')],
  app: [div('height:100vh;overflow:auto')],
  'app-fixed': [div('position:fixed;inset:0;overflow:auto')],
  panel: [div('position:absolute;left:0;right:0;top:0')],
  stacked: [div('position:relative;z-index:1;isolation:isolate')],
  moved: [div('transform:translateY(0.01px)')],
  dialog: [
    inside(
      '<div role="dialog" aria-modal="true" style="position:absolute;left:0;right:0;top:0;background:#fff">',
      '</div>',
    ),
  ],
  contents: [inside('<div style="display:contents"><div>', '</div></div>')],
  clipping: [div('overflow-y:clip;overflow-x:visible')],
  faded: [div('opacity:0.99')],
  shadow: [shadowed],
  frame: [framed],
  cell: [
    inside(
      '<table style="width:100%;table-layout:fixed;border-spacing:0"><tr><td style="padding:0">',
      '</td></tr></table>',
    ),
  ],
  list: [inside('<ul style="margin:0;padding:0;list-style:none"><li>', '</li></ul>')],
  group: [inside('<fieldset style="border:0;margin:0;padding:0;min-width:0">', '</fieldset>')],
  details: [inside('<details open><summary style="display:none"></summary>', '</details>')],
  container: [div('container-type:inline-size')],
  floated: [div('float:left;width:100%')],
  midway: [inside('<div style="height:1400px"></div><div>', '</div><div style="height:1400px"></div>')],
  zoomed: [inside('<style>html{zoom:1.25}</style>', ''), ['450x900+mobile', '1125x1250+mobile']],
  scaled: [div('transform:scale(0.8);transform-origin:0 0;width:125%'), ['288x576+mobile', '720x800+mobile']],
  sharp: [(html) => html, ['360x720@3+mobile', '900x1000@2+mobile']],
};
/** Pages whose own layout any box round them changes, and those that hang on the height of the page or on px of the window. */
const BOUND = /fixed|sticky|body ?[>{,]|html ?[{,]|100vh|dvh|svh|<script/;
const BOUND_IN = {
  midway: /vh|absolute|100%|min-height/,
  zoomed: /@media|@container|v[wh]|vmin|vmax/,
  scaled: /@media|v[wh]|vmin|vmax/,
};

const { values } = parseArgs({
  options: {
    in: { type: 'string', default: Object.keys(WAYS).join(',') },
    'one-of': { type: 'string', default: '12' },
    check: { type: 'boolean', default: false },
  },
});

/** What is told of each page: rules, last parts of selectors, and the place of the size among those asked for. */
async function toldOf(pages, sizes) {
  const folder = await mkdtemp(join(tmpdir(), 'isoptic-wrapped-'));
  try {
    await mkdir(join(folder, 'site'));
    await copyFile(join(here, 'pages/harbour.svg'), join(folder, 'site/harbour.svg'));
    for (const [file, html] of pages) await writeFile(join(folder, 'site', file), html);
    const { pages: listed, findings, profiles } = checkSite(folder, sizes);
    const sources = new Map(listed.map(({ id, source }) => [id, source]));
    const told = new Map(listed.map(({ source }) => [source, new Set()]));
    const places = new Map(profiles.map(({ name }, at) => [name, at]));
    for (const { page, rule, selector, severity, seen } of findings.filter(isOfLayout)) {
      if (severity === 'notice') continue;
      const name = selector
        .split(/[ >]+/)
        .at(-1)
        .replace(/:nth-of-type\(\d+\)/g, '');
      for (const { profile } of seen)
        told.get(sources.get(page)).add(`${rule} ${name} on ${SIZES[places.get(profile)]}`);
    }
    return told;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const cases = (await casesOf(join(here, 'pages'))).filter(
  ({ kind, name, css = '', fault = '', html }) =>
    isSampled(`${kind}/${name}`, Number(values['one-of'])) && !BOUND.test(css + fault + html),
);
const fileOf = ({ kind, name }) => `${kind}-${name}.html`;
const htmlOf = (entry) => pageOf({ ...entry, form: entry.kind === 'constructs' ? 'correct' : 'fault' });
const plain = await toldOf(
  cases.map((entry) => [fileOf(entry), htmlOf(entry)]),
  SIZES,
);
let differing = 0;
for (const way of values.in.split(',')) {
  const [wrap, sizes = SIZES] = WAYS[way];
  const fitting = cases.filter(({ css = '', fault = '', html }) => !BOUND_IN[way]?.test(css + fault + html));
  const wrapped = await toldOf(
    fitting.map((entry) => [fileOf(entry), wrap(htmlOf(entry))]),
    sizes,
  );
  let count = 0;
  for (const [file, all] of wrapped) {
    const before = plain.get(file);
    const gone = [...before].filter((one) => !all.has(one));
    const added = [...all].filter((one) => !before.has(one));
    if (gone.length + added.length === 0) continue;
    count++;
    console.log(
      `${way}: ${file}${gone.map((one) => `\n  GONE  ${one}`).join('')}${added.map((one) => `\n  ADDED ${one}`).join('')}`,
    );
  }
  console.log(`${way}: ${fitting.length} pages, ${count} told otherwise`);
  differing += count;
}
if (values.check && differing > 0) process.exitCode = 1;
