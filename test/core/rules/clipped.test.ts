import { controlClipped } from '../../../src/core/rules/clipped/control-clipped.js';
import { textClipped } from '../../../src/core/rules/clipped/text-clipped.js';
import { unreachable } from '../../../src/core/rules/clipped/unreachable.js';
import {
  FLAG_CONTROL,
  FLAG_PAGE_LINK,
  FLAG_PICTURE,
  FLAG_PLAYER,
  FLAG_REPLACED,
} from '../../../src/core/layout/snapshot.js';
import { CARD, line, renderOf, seenBy } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const PAGE = { width: 400, height: 800 };
const HIDDEN = { 'overflow-x': 'hidden', 'overflow-y': 'hidden' };
const teaser = (style: Record<string, string>, more = {}) => ({
  tag: 'div',
  id: 'teaser',
  box: [10, 10, 200, 24] as const,
  style,
  lines: [line(10, 12, 180), line(10, 32, 180), line(10, 52, 180)],
  ...more,
});

const button = (style: Record<string, string>): Node => ({
  tag: 'button',
  box: [10, 400, 80, 30],
  flags: FLAG_CONTROL,
  style: { visibility: 'visible', ...style },
});

describe('text-clipped', () => {
  test('lines cut off by a box that is too low', () => {
    expect(seenBy(textClipped, PAGE, [teaser(HIDDEN)])).toEqual(['#teaser y 14']);
  });
  test('a scroll container brings them out', () => {
    expect(seenBy(textClipped, PAGE, [teaser({ 'overflow-x': 'auto', 'overflow-y': 'auto' })])).toEqual([]);
  });
  test.each([
    ['visually hidden', { box: [10, 10, 1, 1] as const }],
    ['closed', { box: [10, 10, 200, 0] as const }],
  ])('%s is design', (_, more) => {
    expect(seenBy(textClipped, PAGE, [teaser(HIDDEN, more)])).toEqual([]);
  });
  test('what a control opens further is design as long as that control is there', () => {
    const page = { ...PAGE, openers: [[2, 3]] as const };
    const menu = (style: Record<string, string>) =>
      seenBy(textClipped, page, [button(style), teaser(HIDDEN)]);
    expect(menu({})).toEqual([]);
    expect(menu({ visibility: 'hidden' })).toEqual(['#teaser y 14']);
  });
  test('a sheet that its own button opens keeps what is wholly below that', () => {
    const handle: Node = { ...button({}), box: [10, 10, 80, 30] };
    const inner: Node = { tag: 'p', box: [10, 90, 200, 60], lines: [line(10, 92, 180), line(10, 112, 180)] };
    const sheet = (height: number, ...children: Node[]) =>
      seenBy(textClipped, { ...PAGE, handles: [[children.indexOf(handle) + 3, 2]] }, [
        { tag: 'div', id: 'sheet', box: [0, 0, 400, height], style: HIDDEN, children },
      ]);
    expect(sheet(50, handle, inner)).toEqual([]);
    // A line that is cut through is not put away, nor is what stands before the button.
    expect(sheet(100, handle, inner)).toEqual(['#sheet y 10']);
    expect(sheet(50, inner, handle)).toEqual(['#sheet y 14']);
    // Two buttons open two things in it.
    const both = {
      ...PAGE,
      handles: [
        [3, 2],
        [4, 2],
      ] as const,
    };
    const list: Node = {
      tag: 'div',
      id: 'list',
      box: [0, 0, 400, 50],
      style: HIDDEN,
      children: [handle, handle, inner],
    };
    expect(seenBy(textClipped, both, [list])).toEqual(['#list y 14']);
  });
  test('what follows a button that says it is closed waits itself; what something in it cuts off is lost', () => {
    const page = { ...PAGE, handles: [[2, 3]] as const };
    expect(seenBy(textClipped, page, [button({}), teaser(HIDDEN)])).toEqual([]);
    const main: Node = { tag: 'main', box: [0, 0, 400, 400], children: [teaser(HIDDEN)] };
    expect(seenBy(textClipped, page, [button({}), main])).toEqual(['#teaser y 14']);
  });
  test('parts below one another as high as the screen are shown one at a time', () => {
    const part = (at: number, height: number): Node => ({
      tag: 'section',
      box: [0, 800 * at, 400, height],
      lines: [line(10, 800 * at + 20, 180)],
    });
    const stage = (height: number, ...children: Node[]) =>
      seenBy(textClipped, PAGE, [
        { tag: 'div', id: 'stage', box: [0, 0, 400, height], style: HIDDEN, children },
      ]);
    expect(stage(800, part(0, 800), part(1, 800))).toEqual([]);
    expect(stage(800, part(0, 800), part(1, 500))).toEqual(['#stage y 14']);
    expect(stage(700, part(0, 700), part(1, 700))).toEqual(['#stage y 14']);
    // Of a wheel of digits one has gone by above its window.
    const digit = (at: number): Node => ({
      tag: 'b',
      box: [0, 40 * at, 30, 40],
      lines: [line(4, 40 * at + 8, 20, '3')],
    });
    expect(stage(40, digit(-1), digit(0), digit(1))).toEqual([]);
    expect(stage(40, digit(0), digit(1))).toEqual(['#stage y 12']);
  });
  test('a caption at the foot of a slide that is too high for its window is lost with that; one beside what holds it waits', () => {
    const caption = (y: number, holder: Partial<Node>): Node => ({
      tag: 'div',
      id: 'window',
      box: [0, 0, 300, 100],
      style: HIDDEN,
      children: [
        {
          tag: 'figure',
          box: [0, 0, 300, 180],
          ...holder,
          children: [
            { tag: 'p', box: [0, y, 300, 30], style: { position: 'absolute' }, lines: [line(8, y + 4, 90)] },
          ],
        },
      ],
    });
    const relative = { style: { position: 'relative' } };
    expect(seenBy(textClipped, PAGE, [caption(140, relative)])).toEqual(['#window y 14']);
    expect(seenBy(textClipped, PAGE, [caption(184, relative)])).toEqual([]);
    expect(seenBy(textClipped, PAGE, [caption(140, {})])).toEqual([]);
  });
  test('what is gone whole in a part whose size says that it will change waits for that', () => {
    const panel = (height: number, property: string) =>
      seenBy(textClipped, PAGE, [
        { ...teaser({ ...HIDDEN, 'transition-property': property }), box: [10, 10, 200, height] },
      ]);
    expect(panel(24, 'opacity, max-height')).toEqual([]);
    expect(panel(24, 'all')).toEqual(['#teaser y 14']);
    expect(panel(24, 'max-width')).toEqual(['#teaser y 14']);
    expect(panel(34, 'max-height')).toEqual([expect.stringMatching('#teaser y')]);
    const search = (property: string) =>
      seenBy(textClipped, PAGE, [
        {
          ...{ tag: 'div', id: 'search', box: [10, 10, 44, 44] },
          style: { ...HIDDEN, 'transition-property': property },
          children: [{ tag: 'p', box: [60, 20, 180, 20], lines: [line(60, 20, 90)] }],
        },
      ]);
    expect(search('width')).toEqual([]);
    expect(search('color')).toEqual(['p x 90']);
  });
  test('what is fixed to the screen and cuts its own content loses what is past the screen as well', () => {
    const panel = (y: number): Node => ({
      tag: 'nav',
      id: 'panel',
      box: [0, y, 200, 800],
      style: { ...HIDDEN, position: 'fixed' },
      lines: [line(10, y + 780, 90), line(10, y + 900, 90)],
    });
    expect(seenBy(textClipped, PAGE, [panel(0)])).toEqual(['#panel y 14']);
    // Beside the screen all of it waits.
    expect(seenBy(textClipped, PAGE, [panel(800)])).toEqual([]);
  });
  test('feet of letters that are known to have some', () => {
    /** A line of 20 px whose baseline is at 16 px of it and whose feet are 4 px long, in a box of some height. */
    const cut = (height: number, text: string) =>
      textClipped
        .check(
          renderOf({ ...PAGE, faces: [[0.8, 0.7, 0.2, 1]] }, [
            {
              tag: 'p',
              id: 'p',
              box: [10, 10, 200, height],
              style: { ...HIDDEN, 'font-size': '20px' },
              lines: [{ ...line(10, 10, 100, text), box: [10, 10, 100, 20], face: 0 }],
            },
          ]),
        )
        .map(({ severity, by }) => `${severity ?? 'error'} ${by?.px}`);
    expect(cut(18, 'Early pickers')).toEqual(['warning 2']);
    expect(cut(18, 'Tickets')).toEqual([]);
    expect(cut(18.6, 'Early pickers')).toEqual([]);
    expect(cut(17, 'Early pickers')).toEqual(['error 3']);
  });
  test('a figure that ends what is shortened is no tail of a sentence', () => {
    const clamped = (tag: string, text: string) => {
      const render = renderOf(PAGE, [
        {
          tag: 'p',
          id: 'p',
          box: [10, 10, 200, 24] as const,
          style: { ...HIDDEN, '-webkit-line-clamp': '1' },
          lines: [line(10, 12, 180)],
          children: [
            {
              tag,
              box: [10, 36, 80, 20] as const,
              style: { display: 'inline' },
              lines: [line(10, 36, 80, text)],
            },
          ],
        },
      ]);
      return textClipped.check(render).map(({ severity }) => severity ?? 'error');
    };
    expect(clamped('b', '34 crowns')).toEqual(['error']);
    expect(clamped('b', 'and so on')).toEqual(['notice']);
  });
  test('dots and clamps are for what has no room in their own element; what something around it cuts is cut off', () => {
    const severities = (width: number, room: number, style: Record<string, string>) =>
      textClipped
        .check(
          renderOf(PAGE, [
            {
              tag: 'div',
              box: [10, 10, width, 30],
              style: HIDDEN,
              children: [
                {
                  tag: 'p',
                  box: [10, 10, room, 20],
                  style: { ...HIDDEN, 'text-overflow': 'clip', ...style },
                  lines: [line(10, 10, 150)],
                },
              ],
            },
          ]),
        )
        .map(({ severity }) => severity ?? 'error');
    expect(severities(200, 100, { 'text-overflow': 'ellipsis' })).toEqual(['notice']);
    expect(severities(100, 200, { 'text-overflow': 'ellipsis' })).toEqual(['error']);
    // Dots stand for the end of a line: what an indent pulls out at its beginning is lost.
    const indented = renderOf(PAGE, [
      {
        tag: 'p',
        box: [100, 10, 150, 20],
        style: { ...HIDDEN, 'text-overflow': 'ellipsis', direction: 'ltr' },
        lines: [line(70, 10, 120)],
      },
    ]);
    expect(textClipped.check(indented).map(({ severity }) => severity ?? 'error')).toEqual(['error']);
  });
  test('links that show their signs alone are the narrow form of a side bar; with a part of their words they are cut', () => {
    const link = (at: number): Node => ({
      tag: 'a',
      box: [0, 60 * at, 180, 40],
      flags: FLAG_CONTROL,
      children: [
        { tag: 'img', box: [10, 60 * at + 10, 20, 20], flags: FLAG_PICTURE | FLAG_REPLACED },
        { tag: 'span', box: [60, 60 * at + 10, 100, 20], lines: [line(60, 60 * at + 10, 100, 'Boats')] },
      ],
    });
    const bar = (width: number, links: number) => {
      const nav: Node = {
        tag: 'nav',
        box: [0, 0, width, 400],
        style: HIDDEN,
        children: Array.from({ length: links }, (_, at) => link(at)),
      };
      return [textClipped, controlClipped].flatMap((rule) => seenBy(rule, PAGE, [nav])).length > 0;
    };
    expect([bar(56, 4), bar(100, 4), bar(56, 2)]).toEqual([false, true, true]);
  });
  test('a slide beside its window waits, to the px; words in a box of their own within a slide are cut off', () => {
    const window = (className: string, ...children: Node[]): Node => ({
      tag: 'div',
      id: 'window',
      class: className,
      box: [16, 10, 328, 60],
      style: HIDDEN,
      children,
    });
    // 344 + 318.3 − 344 is a little less than 318.3.
    const slide: Node = { tag: 'p', id: 'slide', box: [344, 10, 328, 60], lines: [line(344, 20, 318.3)] };
    expect(seenBy(textClipped, PAGE, [window('swiper', slide)])).toEqual([]);
    const name: Node = {
      tag: 'p',
      id: 'name',
      box: [20, 10, 100, 24],
      style: HIDDEN,
      lines: [line(20, 12, 90)],
      children: [
        { tag: 'b', box: [130, 12, 50, 20], style: { display: 'inline' }, lines: [line(130, 12, 50)] },
      ],
    };
    expect(seenBy(textClipped, PAGE, [window('swiper', name)])).toEqual([expect.stringContaining('#name')]);
    // A caption that runs out of its block, which stands in the window, is no slide beside it; words that run by are.
    const caption: Node = { tag: 'p', id: 'caption', box: [60, 20, 240, 24], lines: [line(60, 22, 330)] };
    expect(seenBy(textClipped, PAGE, [window('swiper', caption)])).toEqual([
      expect.stringContaining('#caption'),
    ]);
    const next: Node = { tag: 'button', id: 'next', box: [320, 30, 20, 20], flags: FLAG_CONTROL };
    expect(seenBy(textClipped, PAGE, [window('swiper', caption, next)])).toHaveLength(1);
    expect(seenBy(textClipped, PAGE, [window('swiper ticker', caption, next)])).toEqual([]);
  });
  test('a clamp that a part of one more line looks out of', () => {
    const clamped = (height: number) => {
      const render = renderOf(PAGE, [
        {
          tag: 'p',
          box: [10, 10, 200, height],
          style: { ...HIDDEN, '-webkit-line-clamp': '1' },
          lines: [line(10, 12, 180), line(10, 36, 180)],
        },
      ]);
      return textClipped.check(render).map(({ severity }) => severity ?? 'error');
    };
    expect(clamped(26)).toEqual(['notice']);
    expect(clamped(35)).toEqual(['error']);
  });
  test('an ellipsis is a notice, unless too little is left to read', () => {
    const cell = (width: number) => ({
      tag: 'td',
      id: 'cell',
      box: [10, 10, width, 24] as const,
      style: { ...HIDDEN, 'text-overflow': 'ellipsis', 'white-space': 'nowrap' },
      lines: [line(10, 12, 300)],
    });
    const severities = (width: number) =>
      textClipped.check(renderOf(PAGE, [cell(width)])).map(({ severity }) => severity ?? 'error');
    expect(severities(150)).toEqual(['notice']);
    expect(severities(30)).toEqual(['error']);
  });
  test.each<[string, number, 'error' | 'notice']>([
    ['1,250.00 crowns', 60, 'error'],
    ['£ 1,250.00', 130, 'error'],
    ['1,250.00 crowns', 130, 'notice'],
    ['Tender Heron of 1904', 130, 'notice'],
    ['3f2a9c7781bd40', 60, 'notice'],
    ['minutes-20261130.pdf', 130, 'notice'],
  ])(
    'an ellipsis within the figures of “%s”, %i of 160 px of which are left: %s',
    (text, width, expected) => {
      const cell: Node = {
        tag: 'td',
        box: [10, 10, width, 24],
        style: { ...HIDDEN, 'text-overflow': 'ellipsis', 'white-space': 'nowrap' },
        lines: [line(10, 12, 160, text)],
      };
      expect(textClipped.check(renderOf(PAGE, [cell])).map(({ severity }) => severity ?? 'error')).toEqual([
        expected,
      ]);
    },
  );
  test('of a sign that is cut at an edge, pixels tell whether its ink is', () => {
    const sign = (text: string, style: Record<string, string> = {}): Node => ({
      tag: 'span',
      id: 'sign',
      box: [10, 10, 30, 18],
      style: { ...HIDDEN, display: 'inline-block', ...style },
      lines: [line(10, 20, 24, text)],
    });
    const doubts = (node: Node) => textClipped.doubts!(renderOf(PAGE, [node]));
    expect(doubts(sign('☀')).map(({ cuts }) => cuts)).toEqual(['edge']);
    // Letters need no look, and a half star lies on a whole one.
    expect(doubts(sign('7'))).toEqual([]);
    expect(doubts(sign('☀', { position: 'absolute' }))).toEqual([]);
    const told = (hidden: number) => {
      const render = renderOf(PAGE, [sign('☀')]);
      const [doubt] = textClipped.doubts!(render);
      const { uid } = render.view.snapshot.nodes;
      render.view.snapshot.looks = [
        { cover: uid[doubt!.cover]!, under: uid[doubt!.under]!, ink: 90, hidden },
      ];
      return textClipped.check(render).length;
    };
    expect([40, 2].map(told)).toEqual([1, 0]);
  });
});

describe('control-clipped', () => {
  const button = {
    tag: 'button',
    id: 'go',
    box: [10, 60, 100, 40] as const,
    flags: FLAG_CONTROL,
    style: { display: 'inline-block' },
  };
  test('a button below the edge of what cuts it', () => {
    const hero = {
      tag: 'section',
      id: 'hero',
      box: [0, 0, 400, 80] as const,
      style: HIDDEN,
      children: [button],
    };
    expect(seenBy(controlClipped, PAGE, [hero])).toEqual(['#hero y 20']);
    expect(seenBy(textClipped, PAGE, [hero])).toEqual([]);
  });
  test('a list that drops down cuts its chosen words at its padding', () => {
    const list = (padding: number): Node => ({
      tag: 'select',
      id: 'list',
      box: [10, 10, 150, 24],
      flags: FLAG_CONTROL | FLAG_REPLACED,
      padding: [padding, 8, padding, 8],
      lines: [line(18, 10 + padding, 100, 'Happy gulls')],
    });
    expect(seenBy(controlClipped, PAGE, [list(2)])).toEqual([]);
    expect(seenBy(controlClipped, PAGE, [list(8)])).toEqual(['#list y 10']);
  });
  test('a control that cuts its own label', () => {
    const own = {
      ...button,
      box: [10, 10, 80, 40] as const,
      style: { ...HIDDEN, display: 'inline-block' },
      lines: [line(20, 20, 120)],
    };
    expect(seenBy(controlClipped, PAGE, [own])).toEqual(['#go x 50']);
  });
});

describe('unreachable', () => {
  const label = (x: number, style = {}, more = {}) => ({
    tag: 'span',
    id: 'label',
    box: [x, 20, 120, 20] as const,
    style,
    lines: [line(x, 20, 120)],
    ...more,
  });
  test('words that begin before the page does', () => {
    expect(seenBy(unreachable, PAGE, [label(-40, { position: 'absolute', left: '-40px' })])).toEqual([
      '#label x 40',
    ]);
  });
  test('in a right-to-left page that side scrolls, and the other does not', () => {
    const rtl = { ...PAGE, direction: 'rtl' as const };
    expect(seenBy(unreachable, rtl, [label(-40)])).toEqual([]);
    expect(seenBy(unreachable, rtl, [label(320)])).toEqual(['#label x 40']);
  });
  test('a page scrolls as far as its width, which what a box with layout containment holds is no part of', () => {
    expect(seenBy(unreachable, { ...PAGE, scrollWidth: 440 }, [label(320)])).toEqual([]);
    expect(seenBy(unreachable, PAGE, [label(320)])).toEqual(['#label x 40']);
  });
  test('what stands at the start of a scroll container that is off the page itself', () => {
    const code = (scrolled: number): string[] =>
      seenBy(unreachable, { ...PAGE, scrolled: [[2, scrolled, 0]] }, [
        {
          tag: 'pre',
          id: 'code',
          box: [-60, 10, 300, 60],
          style: { 'overflow-x': 'auto', 'overflow-y': 'auto', position: 'relative', left: '-60px' },
          scroll: [300, 60, 500, 60],
          lines: [line(-50, 20, 200)],
        },
      ]);
    expect(code(0)).toEqual(['#code x 50']);
    expect(code(40)).toEqual([]);
  });
  test('the same in a scroll container within another, unless one of them has been scrolled', () => {
    const SCROLLS = { 'overflow-x': 'auto', 'overflow-y': 'auto' };
    const nested = (outerWide: number, scrolled: number): string[] =>
      seenBy(unreachable, { ...PAGE, scrolled: [[2, scrolled, 0]] }, [
        {
          tag: 'pre',
          id: 'out',
          box: [-60, 10, 300, 60],
          style: { ...SCROLLS, position: 'relative', left: '-60px' },
          scroll: [300, 60, outerWide, 60],
          children: [
            {
              tag: 'code',
              box: [-60, 10, 300, 60],
              style: { ...SCROLLS, display: 'block' },
              scroll: [300, 60, 500, 60],
              lines: [line(-50, 20, 200)],
            },
          ],
        },
      ]);
    expect(nested(300, 0)).toEqual(['#out x 50']);
    expect(nested(500, 0)).toEqual(['#out x 50']);
    expect(nested(500, 40)).toEqual([]);
  });
  test('what a scroll container shows at its end only, where that is fixed to the screen and reaches off it', () => {
    /** Four entries in a side bar that begins 60 px down, the last of them ends where its content does. */
    const bar = (height: number, more: Partial<Node> = {}): string[] =>
      seenBy(unreachable, { ...PAGE, scrollHeight: 3000 }, [
        {
          tag: 'nav',
          id: 'bar',
          box: [0, 60, 150, height],
          style: { position: 'fixed', 'overflow-x': 'auto', 'overflow-y': 'auto' },
          scroll: [150, height, 150, 1200],
          lines: [60, 600, 1180, 1236].map((y) => line(10, y, 100)),
          ...more,
        },
      ]);
    expect(bar(800)).toEqual(['#bar y 51']);
    expect(bar(740)).toEqual([]);
    // Where it ends with room of its own, and where the page is scrolled past it.
    expect(bar(800, { scroll: [150, 800, 150, 1300] })).toEqual([]);
    expect(bar(800, { style: { 'overflow-x': 'auto', 'overflow-y': 'auto' } })).toEqual([]);
  });
  test('a window that scrolls and is wider than the screen keeps its right part off it', () => {
    const window = (width: number, scrollWidth: number): string[] =>
      seenBy(unreachable, PAGE, [
        {
          tag: 'div',
          id: 'window',
          box: [0, 100, width, 200],
          style: { position: 'fixed', 'overflow-x': 'auto', 'overflow-y': 'auto' },
          scroll: [width, 200, scrollWidth, 200],
          lines: [line(10, 120, 480)],
        },
      ]);
    expect(window(500, 500)).toEqual(['#window x 90']);
    expect(window(500, 900)).toEqual([]);
    expect(window(400, 500)).toEqual([]);
  });
  test('a page that does not scroll while a dialog is open over all of it has lost nothing', () => {
    const page = (more: readonly Node[]): string[] =>
      seenBy(unreachable, { ...PAGE, scrollHeight: 1200, bodyHeight: 1200, overflowY: 'hidden' }, [
        { tag: 'main', box: [0, 0, 400, 1200], lines: [line(10, 1000, 200)] },
        ...more,
      ]);
    const dialog = (width: number): Node => ({
      tag: 'div',
      box: [0, 0, width, 800],
      style: { position: 'fixed', 'background-color': 'rgba(0, 0, 0, 0.5)' },
      children: [{ ...button({}), box: [100, 300, 80, 30] }],
    });
    expect(page([])).toHaveLength(1);
    expect(page([dialog(400)])).toEqual([]);
    expect(page([dialog(200)])).toHaveLength(1);
  });
  test('a side bar whose margin is as wide as itself waits; pulled by less it is out of reach', () => {
    const bar = (by: number): string[] =>
      seenBy(unreachable, PAGE, [
        {
          tag: 'nav',
          id: 'bar',
          box: [-by, 0, 200, 400],
          margin: [0, 0, 0, -by],
          lines: [line(20 - by, 20, 120)],
        },
      ]);
    expect([bar(200), bar(120)]).toEqual([[], ['#bar x 100']]);
  });
  test('drawers, skip links and words for screen readers wait outside by design', () => {
    expect(seenBy(unreachable, PAGE, [label(-130, { position: 'absolute' })])).toEqual([]);
    expect(
      seenBy(unreachable, PAGE, [
        label(-80, { position: 'absolute' }, { flags: FLAG_CONTROL | FLAG_PAGE_LINK }),
      ]),
    ).toEqual([]);
    expect(seenBy(unreachable, PAGE, [label(-9999, { 'text-indent': '-9999px' })])).toEqual([]);
    // Indented by so much that they begin outside, and can still be seen in part.
    expect(seenBy(unreachable, PAGE, [label(-40, { 'text-indent': '-200px' })])).toHaveLength(1);
  });
  test('a note hangs beside the words of its block, and waits for nothing, though all of it is outside', () => {
    const block = (note: Node): Node => ({
      tag: 'section',
      box: [10, 10, 300, 100],
      style: { position: 'relative' },
      lines: [line(10, 20, 200, 'Heard on all isles')],
      children: [note],
    });
    const note = (x: number, more = {}) => label(x, { position: 'absolute' }, more);
    expect(seenBy(unreachable, PAGE, [block(note(-130))])).toEqual(['#label x 130']);
    // Something to press, far away, or beside nothing.
    expect(seenBy(unreachable, PAGE, [block(note(-130, { flags: FLAG_CONTROL }))])).toEqual([]);
    expect(seenBy(unreachable, PAGE, [block(note(-900))])).toEqual([]);
    expect(seenBy(unreachable, PAGE, [{ ...block(note(-130)), lines: [] }])).toEqual([]);
  });
  test('a button of a window that is on the screen waits where nothing of it is to be seen; a drawer may show its handle', () => {
    const cross = (x: number): Node => ({
      tag: 'button',
      id: 'cross',
      box: [x, 60, 40, 40],
      flags: FLAG_CONTROL,
      style: { position: 'absolute', 'background-color': 'rgb(0, 0, 0)' },
    });
    const window = (child: Node): Node => ({
      tag: 'div',
      box: [10, 50, 380, 200],
      style: { position: 'fixed', top: '50px' },
      children: [child],
    });
    const screen = { width: 400, height: 600 };
    expect(seenBy(unreachable, screen, [window(cross(396))])).toEqual(['#cross x 36']);
    expect(seenBy(unreachable, screen, [window(cross(400))])).toEqual([]);
    const drawer: Node = {
      ...cross(392),
      tag: 'aside',
      box: [370, 60, 240, 100],
      flags: 0,
      lines: [line(420, 70, 90)],
    };
    expect(seenBy(unreachable, screen, [window(drawer)])).toEqual([]);
  });
  test('the last links of a menu that is longer than the screen wait for nothing, though they lead to places of the page', () => {
    const entry = (y: number) => ({
      tag: 'a',
      id: `at-${y}`,
      box: [0, y, 200, 40] as const,
      flags: FLAG_CONTROL | FLAG_PAGE_LINK,
      lines: [line(10, y + 10, 120, 'Low Sands')],
    });
    const menu = (entries: number) => ({
      tag: 'nav',
      id: 'menu',
      box: [0, 0, 200, 40 * entries] as const,
      style: { position: 'fixed', top: '0px' },
      children: Array.from({ length: entries }, (_, i) => entry(40 * i)),
    });
    const screen = { width: 400, height: 600 };
    expect(seenBy(unreachable, screen, [menu(15)])).toEqual([]);
    expect(seenBy(unreachable, screen, [menu(17)])).toEqual(['#menu y 80']);
  });
  test('what an offset moves out of the page is not waiting, unless it was sent far away', () => {
    const offset = (left: number) => label(left, { position: 'relative', left: `${left}px` });
    expect(seenBy(unreachable, PAGE, [offset(-125)])).toEqual(['#label x 125']);
    expect(seenBy(unreachable, PAGE, [offset(-9999)])).toEqual([]);
  });
  test('before the start of a scroll container', () => {
    const scroller = {
      tag: 'div',
      box: [50, 0, 300, 60] as const,
      style: { 'overflow-x': 'auto', 'overflow-y': 'auto' },
      children: [label(20)],
    };
    expect(seenBy(unreachable, PAGE, [scroller])).toEqual(['#label x 30']);
    // Scrolled on by a script, it can be scrolled back.
    expect(seenBy(unreachable, { ...PAGE, scrolled: [[2, 30, 0]] }, [scroller])).toEqual([]);
  });
  test('of a link without a box of its own the words count, until it has lost much of its size', () => {
    const link = (x: number, style = {}) =>
      label(x, { display: 'block', ...style }, { flags: FLAG_CONTROL, lines: [line(x + 14, 20, 90)] });
    expect(seenBy(unreachable, PAGE, [link(-10)])).toEqual([]);
    expect(seenBy(unreachable, PAGE, [link(-10, CARD)])).toEqual(['#label x 10']);
    expect(seenBy(unreachable, PAGE, [link(-20)])).toEqual(['#label x 20']);
  });
  test('fixed to the screen and higher than it', () => {
    const panel = {
      tag: 'nav',
      id: 'panel',
      box: [0, 0, 200, 900] as const,
      style: { position: 'fixed' },
      children: [label(10, {}, { box: [10, 860, 120, 20], lines: [line(10, 860, 120)] })],
    };
    expect(seenBy(unreachable, PAGE, [panel])).toEqual(['#panel y 75']);
  });
  test('a banner above the page by a margin as high as itself waits; by another one it is lost', () => {
    const banner = (margin: number): Node => ({
      tag: 'div',
      id: 'banner',
      box: [0, margin, 400, 48],
      margin: [margin, 0, 0, 0],
      lines: [line(10, margin + 12, 150)],
    });
    expect(seenBy(unreachable, PAGE, [banner(-48)])).toEqual([]);
    expect(seenBy(unreachable, PAGE, [banner(-36)])).toEqual([expect.stringMatching('#banner y')]);
  });
  test('a sheet fixed to the screen waits below it with the button that opens it in sight', () => {
    const sheet: Node = {
      tag: 'div',
      id: 'sheet',
      box: [0, 740, 400, 300],
      style: { position: 'fixed' },
      children: [
        { ...button({}), box: [10, 750, 80, 30] },
        { tag: 'p', box: [10, 860, 200, 20], lines: [line(10, 860, 180)] },
      ],
    };
    expect(seenBy(unreachable, PAGE, [sheet])).toEqual(['#sheet y 75']);
    expect(seenBy(unreachable, { ...PAGE, handles: [[3, 2]] }, [sheet])).toEqual([]);
  });
});

describe('a picture and the shape that cuts it', () => {
  const shaped = (path: string, more = {}) => {
    const picture = { tag: 'img', id: 'quay', box: [10, 10, 200, 100] as const, flags: FLAG_PICTURE };
    return seenBy(controlClipped, PAGE, [
      {
        tag: 'div',
        box: [0, 0, 400, 120] as const,
        children: [{ ...picture, style: { 'clip-path': path }, ...more }],
      },
    ]);
  };
  test.each([
    ['a slanted strip at its side', 'polygon(0% 0%, 40% 0%, 20% 100%, 0% 100%)'],
    ['a third of it', 'polygon(0% 0%, 33% 0%, 33% 100%, 0% 100%)'],
  ])('most of it is gone: %s is left', (_, path) => {
    expect(shaped(path)).toEqual([expect.stringMatching(/^#quay x 1[34]\d/)]);
  });
  test.each([
    ['a triangle', 'polygon(50% 0%, 0% 100%, 100% 100%)'],
    ['a slanted edge', 'polygon(0% 0%, 100% 0%, 100% 80%, 0% 100%)'],
    ['a circle', 'circle(50px at 50% 50%)'],
    ['nearly nothing yet: it waits to be shown', 'polygon(0% 0%, 6% 0%, 6% 100%, 0% 100%)'],
  ])('%s is meant', (_, path) => {
    const round = path.startsWith('circle') ? { box: [10, 10, 100, 100] as const } : {};
    expect(shaped(path, round)).toEqual([]);
  });
});

test('a picture is cropped from below, a chart that a script draws loses what is cut off, and a player its keys', () => {
  const held = (tag: string, height: number, flags = 0) =>
    seenBy(controlClipped, PAGE, [
      {
        tag: 'div',
        id: 'card',
        box: [0, 0, 300, 120] as const,
        style: { ...CARD, ...HIDDEN },
        children: [
          { tag: 'p', box: [0, 0, 300, 20] as const, lines: [line(4, 0, 100)] },
          {
            tag,
            id: 'chart',
            box: [0, 20, 300, height] as const,
            flags: FLAG_PICTURE | FLAG_REPLACED | flags,
          },
        ],
      },
    ]);
  expect(held('video', 200, FLAG_PLAYER)).toEqual(['#card y 100']);
  expect(held('video', 105, FLAG_PLAYER)).toEqual([]);
  expect(held('video', 200)).toEqual([]);
  expect(held('canvas', 200)).toEqual(['#card y 100']);
  expect(held('canvas', 120)).toEqual([]);
  expect(held('img', 200)).toEqual([]);
});

test('a chart that is alone in its frame loses what is cut off at its side, a picture is cropped', () => {
  const alone = (tag: string, width: number) =>
    seenBy(controlClipped, PAGE, [
      {
        tag: 'div',
        id: 'frame',
        box: [0, 0, 150, 100],
        style: HIDDEN,
        children: [{ tag, box: [0, 0, width, 100], flags: FLAG_PICTURE | FLAG_REPLACED }],
      },
    ]);
  expect(alone('canvas', 260)).toEqual([expect.stringMatching(/x 110$/)]);
  expect(alone('canvas', 170)).toEqual([]);
  expect(alone('img', 260)).toEqual([]);
});

test('a logo that is alone in a bar is cut off by it; one that is as wide as its frame is cropped', () => {
  const held = (width: number) =>
    seenBy(controlClipped, PAGE, [
      {
        tag: 'div',
        id: 'bar',
        box: [0, 0, width, 30],
        style: HIDDEN,
        children: [{ tag: 'img', box: [0, 0, 120, 60], flags: FLAG_PICTURE | FLAG_REPLACED }],
      },
    ]);
  expect(held(300)).toEqual(['#bar y 30']);
  expect(held(140)).toEqual([]);
});

describe('a control and the shape of what stands round it', () => {
  const within = (path: string, more: readonly Node[] = []) => {
    const box = [220, 20, 100, 40] as const;
    const send: Node = {
      tag: 'button',
      id: 'send',
      box,
      flags: FLAG_CONTROL,
      style: { 'background-color': 'rgb(10, 20, 80)' },
    };
    const part: Node = { tag: 'form', id: 'part', box: [0, 0, 400, 100], style: { 'clip-path': path } };
    return seenBy(controlClipped, PAGE, [{ ...part, children: [send, ...more] }]);
  };
  test('a slant takes half of it', () => {
    expect(within('polygon(0% 0%, 80% 0%, 55% 100%, 0% 100%)')).toEqual([
      expect.stringMatching(/^#part x \d\d/),
    ]);
  });
  test('a slant that takes a corner is meant', () => {
    expect(within('polygon(0% 0%, 100% 0%, 72% 100%, 0% 100%)')).toEqual([]);
  });
  test('what a shape hides nearly whole waits, unless the shape shows other words', () => {
    const words: Node = { tag: 'p', box: [10, 20, 100, 20], lines: [line(10, 20, 100)] };
    const path = 'polygon(0% 0%, 40% 0%, 40% 100%, 0% 100%)';
    expect(within(path)).toEqual([]);
    expect(within(path, [words])).toEqual(['#part x 100']);
  });
  test('a shape that fits it is its own form', () => {
    const send: Node = { tag: 'button', id: 'send', box: [10, 10, 100, 100], flags: FLAG_CONTROL };
    const form = { tag: 'span', box: [10, 10, 100, 100] as const };
    const path = 'polygon(50% 0%, 100% 50%, 50% 100%, 0% 50%)';
    expect(
      seenBy(controlClipped, PAGE, [{ ...form, style: { 'clip-path': path }, children: [send] }]),
    ).toEqual([]);
  });
});

describe('what counts as one thing, and as ink', () => {
  const window = (children: readonly Node[]): Node => ({
    tag: 'div',
    id: 'window',
    box: [100, 0, 200, 100],
    style: { 'overflow-x': 'hidden', 'overflow-y': 'hidden', position: 'relative' },
    children,
  });
  const arrow = (id: string, x: number): Node => ({
    tag: 'button',
    id,
    class: id,
    box: [x, 40, 60, 24],
    flags: FLAG_CONTROL,
    style: { ...CARD, position: 'absolute' },
    lines: [line(x + 10, 42, 40, id)],
  });
  test('controls of one box that are cut off are one defect, and a control with its words one thing', () => {
    const render = renderOf({ width: 400 }, [window([arrow('back', 70), arrow('next', 270)])]);
    const found = controlClipped.check(render);
    expect(found.map(({ node, related }) => [render.view.id(node), related.length])).toEqual([['back', 1]]);
    expect(found[0]!.message).toContain('The button “back” loses 30 px and is cut off');
  });
  test('accents of capitals are ink', () => {
    // Capitals reach up to 3 px below the top of a line of 16 px type, accents above them.
    const strip = (text: string): Node => ({
      tag: 'p',
      id: 'strip',
      box: [0, 3, 300, 30],
      style: { 'overflow-x': 'hidden', 'overflow-y': 'hidden' },
      lines: [line(0, 0, 120, text)],
    });
    expect(seenBy(textClipped, { width: 400 }, [strip('ÉTÉ À QUAI')])).toEqual(['#strip y 3']);
    expect(seenBy(textClipped, { width: 400 }, [strip('ETE A QUAI')])).toEqual([]);
    expect(seenBy(textClipped, { width: 400 }, [strip('été à quai')])).toEqual([]);
  });
});
