import { isPaintedAsOne } from '../../src/core/css/containing.js';
import { keptLayout } from '../support/kept-layout.js';
import { temporaryFolder } from '../support/program.js';

/** What may make a box hold fixed and absolute boxes, or be painted as one; and what does not, though it was thought to. */
const STYLES = [
  'top: 0',
  'position: relative',
  'transform: translateX(0)',
  'translate: 0 0',
  'rotate: 0deg',
  'scale: 1',
  'perspective: 1px',
  'filter: blur(1px)',
  'backdrop-filter: blur(1px)',
  ...['layout', 'paint', 'size', 'style', 'strict', 'content'].map((value) => `contain: ${value}`),
  'container-type: inline-size',
  'content-visibility: auto',
  'transform-style: preserve-3d',
  'offset-path: circle(5px)',
  'opacity: .5',
  'clip-path: inset(0)',
  'isolation: isolate',
  'mix-blend-mode: multiply',
  ...[
    'transform',
    'translate',
    'filter',
    'backdrop-filter',
    'contain',
    'container-type',
    'position',
    'opacity',
  ].map((value) => `will-change: ${value}`),
];

/**
 * Each style on a block and on an inline box, with a fixed and an absolute box in it that shows by its place what holds it,
 * and one that shows by what `elementFromPoint` hits whether the box is painted as one.
 */
const cell = (style: string, display: string, i: number) => `<div class="o" style="left: ${50 + 60 * i}px">
<p class="p" style="display: ${display}; ${style}">t<i class="f"></i><i class="a"></i><b></b></p><div class="over"></div></div>`;
const CELLS = STYLES.flatMap((style) => ['block', 'inline'].map((display) => ({ style, display })));
const PAGE = `<!doctype html><meta charset="utf-8"><title>Holders</title><style>
.o { position: absolute; top: 50px; width: 50px; height: 60px } .p { margin: 10px 0 0 10px }
.f { position: fixed; left: 0; top: 0; width: 3px; height: 3px } .a { position: absolute; left: 0; top: 0; width: 3px; height: 3px }
b { position: absolute; left: 10px; top: 10px; width: 20px; height: 10px; z-index: 5 }
.over { position: absolute; inset: 0; z-index: 1 }</style>
<body style="margin: 0; width: 6000px">${CELLS.map(({ style, display }, i) => cell(style, display, i)).join('\n')}
<script>for (const box of document.querySelectorAll('b')) {
  box.scrollIntoView({ inline: 'center' });
  const { x, y } = box.getBoundingClientRect();
  if (document.elementFromPoint(x + 8, y + 4)?.className === 'over') box.closest('.o').classList.add('under');
} scrollTo(0, 0)</script>`;

test('what holds a positioned box, and what is painted as one, are as the browser has them', async () => {
  const temp = await temporaryFolder();
  try {
    const view = await keptLayout(temp.path, PAGE, '1000x400');
    const rows = Array.from({ length: view.count }, (_, i) => i);
    const cells = rows.filter((i) => view.classes(i).includes('o'));
    expect(cells).toHaveLength(CELLS.length);
    for (const [at, cellRow] of cells.entries()) {
      const holder = view.childrenOf(cellRow)[0]!;
      const [fixed, absolute] = view.childrenOf(holder) as [number, number];
      const isInline = CELLS[at]!.display === 'inline';
      const told = {
        ...CELLS[at]!,
        fixed: view.containingElement(fixed) === holder,
        absolute: view.containingElement(absolute) === holder,
        asOne: isPaintedAsOne((property) => view.style(holder, property), isInline),
      };
      const isUnder = view.classes(cellRow).includes('under');
      expect(told).toEqual({
        ...CELLS[at]!,
        // At the viewport's corner, or in its cell.
        fixed: view.box(fixed).x > 10,
        absolute:
          view.box(absolute).x > view.box(cellRow).x + 1 || view.box(absolute).y > view.box(cellRow).y + 1,
        asOne: isUnder,
      });
    }
  } finally {
    await temp.dispose();
  }
});
