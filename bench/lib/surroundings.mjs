import { WORDS } from './pieces.mjs';

/** What each is put into: style, and markup round a piece, which is given with its style for documents and trees of their own. */
export const SURROUNDINGS = {
  appshell: [
    '.x{position:fixed;inset:0;overflow:auto;padding:16px;background:#fff}',
    (h) => `<div class=x>${h}${WORDS}<button>Go</button></div>`,
  ],
  popover: [
    '[popover]{width:330px}',
    (h) => `<div popover id=po>${h}</div><script>po.showPopover()</script>`,
  ],
  cookie: [
    '.cookie{position:fixed;left:10px;right:10px;bottom:0;background:#fff;border-top:1px solid #999}',
    (h) => `<div class=cookie>${h}<button class=close>×</button></div>`,
  ],
  modal: [
    '.modal{position:fixed;left:10px;right:10px;top:100px;background:#fff;border:1px solid #999;z-index:9}',
    (h) => `<div class=modal role=dialog aria-modal=true aria-label=More>${h}<button>Close</button></div>`,
  ],
  openmenu: [
    '.m{position:relative}.p{position:absolute;top:100%;left:0;width:320px;background:#fff;border:1px solid #999;z-index:3}',
    (h) =>
      `<div class=m><button aria-expanded=true>More</button><div class=p>${h}</div></div>${WORDS.repeat(6)}`,
  ],
  dropdown: [
    '.dropdown{position:absolute;top:200px;left:10px;width:320px;background:#fff;border:1px solid #999;z-index:3}',
    (h) => `<div class=dropdown>${h}</div>${WORDS.repeat(6)}`,
  ],
  carousel: [
    '.carousel{position:relative;overflow:hidden}.slide{width:100%}',
    (h) => `<div class=carousel><div class=slide>${h}</div><button class=next>›</button></div>`,
  ],
  tabs: [
    '',
    (h) =>
      `<div role=tablist><button role=tab aria-selected=true aria-controls=one>One</button></div><div role=tabpanel id=one>${h}</div>`,
  ],
  // The button of a menu that is a row on this screen.
  unopened: [
    '.b{display:none}',
    (h) => `<button class=b aria-controls=row>Menu</button><nav id=row>${h}</nav>`,
  ],
  // What scrolls an application is round boxes that would scroll or cut, had they anything to.
  idle: [
    '.x{position:fixed;inset:0;overflow:auto;background:#fff}.y{overflow:hidden}.z{overflow:auto;padding:16px}',
    (h) =>
      `<div class=x><div class=y><div class=z>${h}${WORDS.repeat(12)}<button>Go</button></div></div></div>`,
  ],
  nth: ['', (h) => `<div class=list>${`<article>${h}</article>`.repeat(3)}</div>`],
  link: [
    'a{color:inherit;text-decoration:none;display:block}',
    (h) => (/button/.test(h) ? h : `<a href=/x>${h}</a>`),
  ],
  heading: ['', (h) => `<header>${h}</header>`],
  big: ['', (h) => `<main>${WORDS.repeat(60)}${h}${WORDS.repeat(60)}</main>`],
  dark: ['body{background:#123;color:#eee}', (h) => `<div>${h}</div>`],
  rightside: ['.x{margin-left:auto;width:310px}', (h) => `<div class=x>${h}</div>`],

  // Each part in a row of its own, which makes up for the gutters of its columns.
  gutters: [
    '.x{padding:12px}.gr{margin:0 -12px}.gk{padding:0 12px}',
    (h) => `<div class=x>${h}</div><script>
const styleOf = (e) => getComputedStyle(e).display;
const parts = [...document.querySelectorAll('.x *')].filter((e) =>
  /^(block|flex|grid|table|flow-root)$/.test(styleOf(e)) && /^(block|flow-root)$/.test(styleOf(e.parentElement)));
for (const part of parts) {
  const [row, column] = ['gr', 'gk'].map((name) => Object.assign(document.createElement('div'), { className: name }));
  part.before(row);
  row.append(column);
  column.append(part);
}
</script>`,
  ],
  plain: ['', (h) => h],
  scroller: [
    '.x{height:200px;overflow:auto;width:328px}',
    (h) => `<div class=x>${h}${WORDS}${WORDS}${WORDS}</div>`,
  ],
  scrollx: [
    '.x{overflow-x:auto;width:328px}.y{width:600px}',
    (h) => `<div class=x><div class=y>${h}${WORDS}</div></div>`,
  ],
  shadow: [
    '',
    (h, css) =>
      `<x-a id=xa></x-a><script>xa.attachShadow({mode:'open'}).innerHTML=${JSON.stringify(`<style>${css}</style>${h}`)}</script>`,
  ],
  frame: [
    'iframe{width:328px;height:260px;border:1px solid #999}',
    (h, css) =>
      `<iframe srcdoc="${`<!doctype html><style>body{margin:8px;font:16px/1.5 Arial}${css}</style>${h}`.replaceAll('"', '&quot;')}"></iframe>`,
  ],
  rtl: ['.x{direction:rtl}', (h) => `<div class=x>${h}</div>`],
  sticky: ['.x{position:sticky;top:0;background:#fff}', (h) => `<div class=x>${h}</div>${WORDS.repeat(20)}`],
  fixed: [
    '.x{position:fixed;left:10px;right:10px;bottom:0;background:#fff;border-top:1px solid #999}body{padding-bottom:260px}',
    (h) => `${WORDS.repeat(12)}<div class=x>${h}</div>`,
  ],
  dialog: ['dialog{width:330px}', (h) => `<dialog id=dl>${h}</dialog><script>dl.showModal()</script>`],
  details: ['', (h) => `<details open><summary>More</summary>${h}</details>`],
  scaled: ['.x{transform:scale(.9);transform-origin:0 0}', (h) => `<div class=x>${h}</div>`],
  zoomed: ['.x{zoom:1.1}', (h) => `<div class=x>${h}</div>`],
  columns: ['.x{columns:1;column-width:300px}', (h) => `<div class=x>${h}${WORDS}</div>`],
  cell: [
    'table{border-collapse:collapse}td{border:1px solid #ccc;padding:6px}',
    (h) => `<table><tr><td>${h}</td></tr></table>`,
  ],
  contain: ['.x{contain:layout paint}', (h) => `<div class=x>${h}</div>`],
  contents: ['.x{display:contents}', (h) => `<div class=x>${h}</div>`],
  grid: ['.x{display:grid;grid-template-columns:1fr}', (h) => `<div class=x>${h}${WORDS}</div>`],
  flexcol: [
    '.x{display:flex;flex-direction:column;gap:8px;align-items:flex-start}',
    (h) => `<div class=x>${h}${WORDS}</div>`,
  ],
  faded: ['.x{opacity:.95;filter:brightness(.98)}', (h) => `<div class=x>${h}</div>`],
  listitem: ['', (h) => `<ul><li>${h}</li><li>Heron</li></ul>`],
  label: ['', (h) => `<nav aria-label=More>${h}</nav>`],
  animated: [
    '@keyframes k{from{opacity:0;transform:translateY(20px)}to{opacity:1;transform:none}}.x{animation:k 1s both}',
    (h) => `<div class=x>${h}</div>`,
  ],
  layer: ['.x{position:relative;z-index:2;isolation:isolate}', (h) => `<div class=x>${h}</div>`],
  slider: [
    '.x{display:flex;overflow-x:auto;scroll-snap-type:x mandatory;width:328px}.x>div{flex:0 0 310px;scroll-snap-align:start}',
    (h) => `<div class=x><div>${h}</div><div>${WORDS}</div></div>`,
  ],
  print: [
    'section{max-width:320px;margin:auto;background:#f4f4f4;padding:8px;border-radius:8px}',
    (h) => `<section>${h}</section>`,
  ],

  bodyflex: ['body{display:flex;flex-direction:column}', (h) => `<main>${h}</main>`],
  bodygrid: ['body{display:grid;grid-template-columns:minmax(0,1fr)}', (h) => `<main>${h}</main>`],
  hidex: ['html,body{overflow-x:hidden}', (h) => `<main>${h}</main>`],
  clipx: ['body{overflow-x:clip}', (h) => `<main>${h}</main>`],
  rem: ['html{font-size:62.5%}body{font-size:1.6rem}', (h) => `<main>${h}</main>`],
  fixedhead: [
    'body{padding-top:70px}.hd{position:fixed;top:0;left:0;right:0;height:50px;background:#246;color:#fff}',
    (h) => `<div class=hd>Boatyard</div><main>${h}</main>`,
  ],
  stickyhead: [
    '.hd{position:sticky;top:0;z-index:1;height:50px;background:#246;color:#fff}',
    (h) => `<div class=hd>Boatyard</div><main>${h}</main>${WORDS.repeat(20)}`,
  ],
  rtlpage: ['', (h) => `<script>document.documentElement.dir='rtl'</script><main>${h}</main>`],
  narrowcol: ['.x{width:290px;margin:auto}', (h) => `<div class=x>${h}</div>`],
  sidebar: [
    '.l{display:flex}.l nav{flex:0 0 20px;background:#eee}.l main{flex:1;min-width:0}',
    (h) => `<div class=l><nav></nav><main>${h}</main></div>`,
  ],
  fullheight: [
    'html,body{height:100%}#app{min-height:100%;display:flex;flex-direction:column}',
    (h) => `<div id=app><main style="flex:1">${h}</main><footer>Boatyard</footer></div>`,
  ],
  scrollapp: [
    'html,body{height:100%;margin:0;overflow:hidden}#app{height:100%;overflow:auto;padding:16px}',
    (h) => `<div id=app>${h}${WORDS.repeat(8)}</div>`,
  ],
  article: ['', (h) => `<article><h2>Tar</h2>${WORDS}${h}<h3>Oak</h3>${WORDS}</article>`],
  form: ['', (h) => `<form><fieldset><legend>Boat</legend>${h}</fieldset></form>`],
  swiper: [
    '.swiper{overflow:hidden}.swiper-wrapper{display:flex;transform:translateX(0)}.swiper-slide{flex:0 0 100%}',
    (h) =>
      `<div class=swiper><div class=swiper-wrapper><div class=swiper-slide>${h}</div><div class=swiper-slide>${WORDS}</div></div></div>`,
  ],
  accordion: [
    '.acc .panel{max-height:400px;overflow:hidden}',
    (h) => `<div class=acc><button aria-expanded=true>More</button><div class=panel>${h}</div></div>`,
  ],
  masked: [
    '.x{border-radius:12px;overflow:hidden;background:#f6f6f6;padding:16px}',
    (h) => `<div class=x>${h}</div>`,
  ],
  overlay: [
    '.x{position:relative;background:linear-gradient(#cde,#fff);padding:16px}.x::before{content:"";position:absolute;inset:0;background:#fff3;pointer-events:none}',
    (h) => `<div class=x><div style="position:relative">${h}</div></div>`,
  ],
  cardlink: [
    '.x{position:relative;padding:8px;border:1px solid #ccc}.x a.all::after{content:"";position:absolute;inset:0}',
    (h) => `<div class=x><a class=all href=/x>Boat</a>${h}</div>`,
  ],
  custom: ['my-box{display:block}', (h) => `<my-box>${h}</my-box>`],
  svgfo: [
    '',
    (h) =>
      `<svg width=328 height=260><foreignObject width=328 height=260><div xmlns="http://www.w3.org/1999/xhtml" style="height:260px">${h}</div></foreignObject></svg>`,
  ],
  subgrid: [
    '.x{display:grid;grid-template-columns:1fr}.x>div{display:grid;grid-template-columns:subgrid}',
    (h) => `<div class=x><div><div>${h}</div></div></div>`,
  ],
  cq: ['.x{container-type:inline-size}', (h) => `<div class=x>${h}</div>`],
  cv: ['.x{content-visibility:auto}', (h) => `<div class=x>${h}</div>`],
  hover: ['.x:hover{color:red}', (h) => `<div class=x tabindex=0>${h}</div>`],
  nested: ['', (h) => '<div>'.repeat(30) + h + '</div>'.repeat(30)],
  sr: [
    '.sr{position:absolute;width:1px;height:1px;overflow:hidden;clip-path:inset(50%)}',
    (h) => `<div><span class=sr>Hidden words for some</span>${h}</div>`,
  ],
};

/** These are all that their page shows. */
const ALONE = new Set(['appshell', 'appabs', 'scrollapp']);

/** A fault that is none there: a float is held, a word is at the other end of its line. */
export const NO_FAULT = new Set([
  'grid floatOutOfBox',
  'flexcol floatOutOfBox',
  ...['rtl', 'rtlpage'].flatMap((where) =>
    ['signOnField', 'panelOnWords', 'priceCut'].map((what) => `${where} ${what}`),
  ),
]);

/** A count at the corner of its box is cut off by what cuts there, and goes under a bar right above. */
export const NOT_CORRECT = new Set(
  [
    'accordion',
    'carousel',
    'contain',
    'cv',
    'svgfo',
    'swiper',
    'scroller',
    'scrollx',
    'slider',
    'stickyhead',
  ].map((where) => `${where} countAtCorner`),
);

/** @returns a document with one of the pieces in one of the surroundings */
export function documentOf([css, html], where) {
  const [style, wrap] = SURROUNDINGS[where];
  const piece = wrap(html, `*{box-sizing:border-box}${css}`);
  return `<!doctype html><html lang=en><meta charset=utf-8><meta name=viewport content="width=device-width, initial-scale=1"><title>Boats</title>
<style>*{box-sizing:border-box}body{margin:0;font:16px/1.5 Arial;padding:16px;color:#222}${css}${style}</style>
<body>${ALONE.has(where) ? piece : `<h1>Boats</h1>${WORDS}${piece}${WORDS}`}</body></html>`;
}
