// Mistakes that nobody thought of: any property that moves, sizes, cuts or stacks, with any value that it may have, at any element in
// sight. `operators.mjs` has what developers are known to do; this has what the style sheet language allows.
const px = (low, high) => (r) => `${r.int(low, high)}px`;
const share = (low, high) => (r) => `${r.int(low, high)}%`;
const em = (low, high) => (r) => `${(low + r.next() * (high - low)).toFixed(2)}em`;
const one =
  (...values) =>
  (r) =>
    r.pick(values);
const any =
  (...ways) =>
  (r) =>
    r.pick(ways)(r);
const number = (low, high) => (r) => (low + r.next() * (high - low)).toFixed(2);
const offset = any(px(-120, 120), share(-60, 60), em(-4, 4));
const length = any(px(8, 700), share(10, 180), em(1, 30), one('100vw', '50vw', 'max-content', 'min-content'));
const track = one(
  '1fr',
  '1fr 1fr',
  '1fr 1fr 1fr',
  '200px 1fr',
  '300px 300px',
  'auto 320px',
  'repeat(4, 1fr)',
  'minmax(0, 1fr) 240px',
);

/** Of each property, values as they are written. What only takes a part away for good (`display: none`) is no mistake of layout. */
const PROPERTIES = {
  position: one(
    'absolute',
    'fixed',
    'sticky; top: 0',
    'relative; top: 40px',
    'absolute; right: 0',
    'absolute; bottom: 0',
    'fixed; bottom: 0',
  ),
  inset: (r) => `${offset(r)}; position: ${r.pick(['absolute', 'relative'])}`,
  left: (r) => `${offset(r)}; position: relative`,
  top: (r) => `${offset(r)}; position: relative`,
  display: one(
    'inline',
    'inline-block',
    'flex',
    'inline-flex',
    'grid',
    'block',
    'table',
    'table-cell',
    'contents',
    'flow-root',
    'list-item',
  ),
  float: one('left', 'right'),
  clear: one('both', 'none'),
  width: length,
  'min-width': length,
  'max-width': any(px(20, 300), share(5, 60), em(1, 20)),
  height: any(px(8, 300), em(0.5, 20), one('100vh', '50vh')),
  'min-height': any(px(100, 900), one('100vh')),
  'max-height': any(px(8, 300), em(0.5, 20)),
  'margin-left': offset,
  'margin-right': offset,
  'margin-top': offset,
  'margin-bottom': offset,
  padding: any(px(10, 160), share(5, 40)),
  'padding-left': any(px(10, 300), share(5, 60)),
  'padding-top': any(px(10, 200), share(5, 60)),
  border: one('20px solid teal', '40px solid #333'),
  'box-sizing': (r) => `content-box; width: 100%; padding: ${r.int(8, 60)}px`,
  overflow: one(
    'hidden',
    'clip',
    'hidden; height: 3em',
    'hidden; width: 8em',
    'auto; max-height: 3em',
    'clip; max-width: 12em',
  ),
  'overflow-x': one('clip', 'hidden'),
  'font-size': any(number(1.2, 4), px(18, 90)),
  'line-height': any(number(0.3, 1), px(6, 20)),
  'letter-spacing': any(em(-0.3, 0.8), px(-4, 14)),
  'word-spacing': any(em(-0.6, 3)),
  'text-indent': any(px(-140, 300), share(-50, 90)),
  'text-align': one('right', 'center', 'justify'),
  'white-space': one('nowrap', 'pre', 'pre-line'),
  'word-break': one('keep-all', 'break-all'),
  'writing-mode': one('vertical-rl', 'vertical-lr'),
  direction: one('rtl', 'ltr'),
  'vertical-align': one('top', 'super', '-20px', '24px', 'text-bottom'),
  columns: one('2', '3', '4', '12em'),
  flex: one('none', '1', '0 0 100%', '0 0 300px', '1 0 auto', '0 1 40px'),
  'flex-wrap': one('nowrap', 'wrap', 'wrap-reverse'),
  'flex-direction': one('row', 'column', 'row-reverse'),
  'align-items': one('flex-start', 'center', 'flex-end', 'stretch'),
  'justify-content': one('center', 'flex-end', 'space-between'),
  'align-self': one('center', 'flex-end', 'stretch'),
  gap: any(px(20, 200), em(1, 12)),
  order: one('-1', '5'),
  'grid-template-columns': (r) => `${track(r)}; display: grid`,
  'grid-template-rows': one('40px 40px', '2rem', '1fr 60px'),
  'grid-column': one('span 3', '1 / -1', '2', '4 / 6'),
  'grid-area': one('1 / 1', '1 / 1 / 2 / 3'),
  'grid-auto-rows': one('40px', '3rem'),
  transform: one(
    'rotate(-8deg)',
    'rotate(30deg)',
    'scale(1.3)',
    'scale(2)',
    'translateX(30%)',
    'translateY(-40%)',
    'translate(-50%, -50%)',
    'skewX(20deg)',
    'scaleX(1.5)',
  ),
  translate: (r) => `${offset(r)} ${offset(r)}`,
  rotate: one('6deg', '-20deg', '90deg', '180deg'),
  scale: one('1.2', '1.8', '0.3 1'),
  zoom: one('1.3', '2', '0.5'),
  'z-index': one('-1; position: relative', '10; position: relative; top: -30px', '-1; position: absolute'),
  'clip-path': one(
    'inset(10% 0)',
    'inset(0 20% 0 0)',
    'circle(40%)',
    'polygon(0 0, 100% 0, 80% 100%, 0 80%)',
    'ellipse(50% 40%)',
  ),
  'border-radius': one('50%; overflow: hidden', '3em; overflow: hidden'),
  contain: one('size', 'strict', 'paint', 'inline-size'),
  'aspect-ratio': one('1', '16 / 9', '4 / 1'),
  'object-fit': one('cover; height: 60px', 'none; height: 80px'),
  'shape-outside': one('circle()'),
  'table-layout': one('fixed; width: 100%', 'auto'),
  'border-spacing': one('40px'),
  'border-collapse': one('collapse'),
  outline: one('12px solid teal'),
  '-webkit-line-clamp': (r) =>
    `${r.int(1, 3)}; display: -webkit-box; -webkit-box-orient: vertical; overflow: hidden`,
  'text-overflow': one(
    'ellipsis; overflow: hidden; white-space: nowrap',
    'ellipsis; overflow: hidden; white-space: nowrap; max-width: 8em',
  ),
  'mask-image': one(
    'linear-gradient(90deg, #000 60%, transparent 60%)',
    'linear-gradient(#000 70%, transparent 70%)',
  ),
  'background-color': one(
    '#fff; position: relative; margin-top: -30px',
    '#223; position: relative; margin-bottom: -24px; z-index: 1',
  ),
};

const isSeen = (e) => e.width > 4 && e.height > 4;

export const ANY_PROPERTY = Object.entries(PROPERTIES).map(([name, value]) => ({
  name: `any-${name}`,
  fits: isSeen,
  css: (element, random) => `${name}: ${value(random)}`,
}));
