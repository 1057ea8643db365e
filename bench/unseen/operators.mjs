// Mistakes as developers make them: one declaration, or one change of content, at one element that it can happen to. `fits` is asked of
// what the browser tells of an element (see describe.mjs); `css` gives declarations, `js` a change of the element `e`.
const isBlock = (e) => /^(block|flex|grid|flow-root|list-item|table)$/.test(e.display) && e.inFlow;
const isText = (e) => e.ownText.length > 12 && e.inFlow;
const isWords = (e) => e.ownText.length > 2;
const isBox = (e) => isBlock(e) && e.textLength > 10 && e.width > 80 && e.height > 20 && e.height < 900;
const isButton = (e) => e.control && e.textLength > 1 && e.height < 90;
const isBar = (e) => e.y < 200 && e.width > 0.8 * e.viewport && e.height < 160 && e.textLength > 4;
const isRow = (e) => /flex/.test(e.display) && e.children > 1;
const isGrid = (e) => /grid/.test(e.display) && e.children > 1;
const isCard = (e) => isBox(e) && e.drawn && e.width < 0.95 * e.viewport;

const op = (name, fits, css, more = {}) => ({ name, fits, css, ...more });

export const OPERATORS = [
  // Sizes and minima.
  op('width-fixed', isBox, (e, r) => `width: ${Math.round(e.width * (1.1 + r.next() * 0.9))}px`),
  op(
    'width-narrow',
    (e) => isBox(e) && isWords(e),
    (e, r) => `width: ${r.int(40, 110)}px`,
  ),
  op('min-width', isBox, (e, r) => `min-width: ${r.int(420, 900)}px`),
  op(
    'min-width-auto',
    (e) => isBox(e) && e.parentFlex,
    () => 'min-width: auto; white-space: nowrap',
  ),
  op(
    'width-vw',
    (e) => isBox(e) && e.x > 8,
    () => 'width: 100vw',
  ),
  op(
    'width-full-padded',
    isBox,
    (e, r) =>
      `width: 100%; box-sizing: content-box; padding-left: ${r.int(12, 40)}px; padding-right: ${r.int(12, 40)}px`,
  ),
  op('height-fixed', isBox, (e, r) => `height: ${Math.round(e.height * (0.4 + r.next() * 0.4))}px`),
  op(
    'height-cut',
    isBox,
    (e, r) => `height: ${Math.round(e.height * (0.4 + r.next() * 0.45))}px; overflow: hidden`,
  ),
  op(
    'max-height-cut',
    isBox,
    (e, r) => `max-height: ${Math.round(e.height * (0.5 + r.next() * 0.4))}px; overflow: hidden`,
  ),
  op(
    'button-height',
    isButton,
    (e, r) => `height: ${r.int(8, 18)}px; padding-top: 0; padding-bottom: 0; display: inline-block`,
  ),
  op(
    'button-width',
    isButton,
    (e, r) =>
      `width: ${Math.round(e.width * (0.35 + r.next() * 0.35))}px; white-space: nowrap; overflow: hidden; padding-left: 0; padding-right: 0; display: inline-block`,
  ),
  // Wrapping.
  op(
    'nowrap',
    (e) => isText(e) && e.ownText.length > 30,
    () => 'white-space: nowrap',
  ),
  op('nowrap-row', isRow, () => 'flex-wrap: nowrap; white-space: nowrap'),
  op(
    'nowrap-cut',
    (e) => isText(e) && e.ownText.length > 30,
    () => 'white-space: nowrap; overflow: hidden',
  ),
  op(
    'pre',
    (e) => isText(e) && e.ownText.length > 40,
    () => 'white-space: pre',
  ),
  op(
    'no-shrink',
    (e) => e.parentFlex && isBox(e),
    (e, r) => `flex: 0 0 ${Math.round(e.width * (1.2 + r.next()))}px`,
  ),
  op(
    'grid-columns',
    isGrid,
    (e, r) => `grid-template-columns: repeat(${Math.min(4, e.children)}, ${r.int(180, 320)}px)`,
  ),
  op(
    'grid-min',
    (e) => isGrid(e),
    (e, r) => `grid-template-columns: repeat(auto-fill, minmax(${r.int(400, 700)}px, 1fr))`,
  ),
  op(
    'flex-row',
    (e) => isBox(e) && e.children > 1 && e.children < 8 && !/flex|grid/.test(e.display),
    () => 'display: flex',
  ),
  // Margins, offsets and positions.
  op('margin-up', isBox, (e, r) => `margin-top: -${r.int(20, 90)}px`),
  op('margin-under', isBox, (e, r) => `margin-bottom: -${r.int(20, 90)}px`),
  op('margin-out-left', isBox, (e, r) => `margin-left: -${r.int(20, 80)}px`),
  op('margin-out-right', isBox, (e, r) => `margin-right: -${r.int(20, 120)}px`),
  op(
    'margin-in',
    (e) => isBox(e),
    (e, r) => `margin-left: ${r.int(80, 260)}px; width: ${Math.round(e.width)}px`,
  ),
  op('absolute', isBox, (e, r) => `position: absolute; top: ${r.int(0, 40)}px; left: ${r.int(0, 60)}px`),
  op('absolute-end', isBox, (e, r) => `position: absolute; bottom: 0; right: ${r.int(0, 20)}px`),
  op('relative', isBox, (e, r) => `position: relative; top: ${r.pick([-1, 1]) * r.int(20, 80)}px`),
  op('relative-side', isBox, (e, r) => `position: relative; left: ${r.pick([-1, 1]) * r.int(30, 120)}px`),
  op(
    'translate',
    isBox,
    (e, r) => `transform: translate(${r.int(-60, 60)}px, ${r.pick([-1, 1]) * r.int(15, 60)}px)`,
  ),
  op('scaled', isBox, (e, r) => `transform: scale(${(1.15 + r.next() * 0.4).toFixed(2)})`),
  op(
    'rotated',
    (e) => isBox(e) && e.height < 200,
    (e, r) => `transform: rotate(${r.int(8, 40)}deg)`,
  ),
  op('fixed-bar', isBar, () => 'position: fixed; top: 0; left: 0; right: 0; z-index: 99; background: #fff'),
  op(
    'fixed-foot',
    (e) => isBox(e) && e.height < 120 && e.width > 0.5 * e.viewport,
    () => 'position: fixed; bottom: 0; left: 0; right: 0; z-index: 99; background: #fff',
  ),
  op(
    'badge-in',
    (e) => isWords(e) && e.ownText.length < 12 && e.height < 60,
    (e, r) => `position: absolute; top: ${r.int(-4, 12)}px; right: ${r.int(-4, 30)}px; background: #fde68a`,
  ),
  op(
    'float',
    (e) => isBox(e) && e.width > 150,
    (e, r) =>
      `float: ${r.pick(['left', 'right'])}; width: ${Math.round(e.width * 0.6)}px; height: ${Math.round(e.height * 0.5)}px`,
  ),
  // Type.
  op(
    'line-height',
    (e) => isText(e) && e.lines > 1,
    (e, r) => `line-height: ${(0.45 + r.next() * 0.3).toFixed(2)}`,
  ),
  op(
    'font-size',
    (e) => isText(e),
    (e, r) => `font-size: ${Math.round(e.fontSize * (1.6 + r.next()))}px`,
  ),
  op(
    'font-size-kept-height',
    (e) => isText(e) && e.height < 200,
    (e, r) =>
      `height: ${Math.round(e.height)}px; font-size: ${Math.round(e.fontSize * (1.4 + r.next() * 0.8))}px`,
  ),
  op(
    'letter-spacing',
    (e) => isWords(e) && e.ownText.length > 8,
    (e, r) => `letter-spacing: ${r.int(4, 12)}px; white-space: nowrap`,
  ),
  op('text-indent', isText, (e, r) => `text-indent: -${r.int(30, 90)}px`),
  // Clips.
  op('clip-inset', isBox, (e, r) => `clip-path: inset(0 ${r.int(10, 30)}% 0 0)`),
  op('clip-polygon', isBox, (e, r) => `clip-path: polygon(0 0, 100% 0, 100% ${r.int(50, 80)}%, 0 100%)`),
  op(
    'round-cut',
    (e) => isBox(e) && e.height < 160,
    () => 'border-radius: 999px; overflow: hidden; padding: 0',
  ),
  op(
    'clamp',
    (e) => isText(e) && e.lines > 2,
    // Without the mark of a clamp, which says that there is more.
    (e, r) => `overflow: hidden; max-height: ${r.pick(['1.5em', '2.2em', '3.4em'])}`,
  ),
  op(
    'ellipsis',
    (e) => isButton(e) && e.width > 50,
    (e, r) =>
      `display: inline-block; max-width: ${r.int(30, 46)}px; overflow: hidden; text-overflow: ellipsis; white-space: nowrap`,
  ),
  op(
    'overflow-off',
    (e) => e.scrolls,
    () => 'overflow: visible',
  ),
  op(
    'overflow-cut-side',
    (e) => isBox(e) && e.children > 1,
    (e) => `width: ${Math.round(e.width * 0.6)}px; overflow-x: hidden; white-space: nowrap`,
  ),
  // Columns, tables, pictures.
  op(
    'columns',
    (e) => isBox(e) && e.textLength > 200,
    (e, r) => `column-count: ${r.int(3, 5)}; column-gap: 4px`,
  ),
  op(
    'table-fixed',
    (e) => e.tag === 'table',
    (e, r) => `table-layout: fixed; width: ${r.int(180, 320)}px`,
  ),
  op(
    'table-wide',
    (e) => e.tag === 'table',
    (e, r) => `min-width: ${r.int(700, 1100)}px`,
  ),
  op(
    'picture-wide',
    (e) => e.tag === 'img' && e.width > 40,
    (e, r) => `max-width: none; width: ${Math.round(e.viewport * (1.05 + r.next() * 0.4))}px`,
  ),
  op(
    'picture-tall',
    (e) => e.tag === 'img' && e.width > 40,
    (e, r) =>
      `max-height: none; height: ${Math.round(e.height * 1.8)}px; margin-bottom: -${r.int(60, 160)}px`,
  ),
  op('card-padding', isCard, (e, r) => `height: ${Math.round(e.height)}px; padding: ${r.int(30, 70)}px`),
  // Content.
  op(
    'long-word',
    (e) => isWords(e) && e.children === 0,
    () => '',
    {
      js: (e, r) =>
        `e.textContent = ${JSON.stringify('Wohnungsbaugenossenschaftsverwaltung'.repeat(r.int(1, 2)))}`,
    },
  ),
  op(
    'longer-words',
    (e) => isText(e) && e.children === 0,
    () => '',
    {
      js: (e, r) =>
        `e.textContent = e.textContent + ' ' + e.textContent${r.next() < 0.5 ? ' + " " + e.textContent' : ''}`,
    },
  ),
  op(
    'longer-label',
    (e) => isButton(e) && e.children === 0,
    () => 'white-space: nowrap',
    { js: () => `e.textContent = e.textContent.trim() + ' and continue to the next step'` },
  ),
  op(
    'right-to-left',
    (e) => isBox(e) && e.children > 1,
    () => 'direction: rtl',
  ),
  op(
    'picture-missing',
    (e) => e.tag === 'img' && e.width > 60,
    (e) => `width: ${Math.round(e.width)}px; height: 20px; font-size: 24px`,
    {
      js: () =>
        `e.alt = 'A picture of the harbour at Wickham Quay in the evening'; e.src = 'nowhere.png'; e.removeAttribute('srcset')`,
    },
  ),
];
