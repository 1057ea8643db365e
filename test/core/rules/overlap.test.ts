import { controlOverlap } from '../../../src/core/rules/overlap/control-overlap.js';
import { covered } from '../../../src/core/rules/overlap/covered.js';
import { textOverlap } from '../../../src/core/rules/overlap/text-overlap.js';
import {
  FLAG_ARIA_HIDDEN,
  FLAG_CONTROL,
  FLAG_FIELD,
  FLAG_LABEL,
  FLAG_PICTURE,
  FLAG_REPLACED,
  FLAG_TOP_LAYER,
} from '../../../src/core/layout/snapshot.js';
import { sceneOf } from '../../../src/core/layout/scene.js';
import { middleOf } from '../../../src/core/sightings/doubt.js';
import { CARD, line, renderOf, seenBy, WHITE } from '../../support/render.js';
import type { Node } from '../../support/snapshot.js';

const PAGE = { width: 400, height: 800, scrollHeight: 2000 };
const text = (id: string, y: number, style = {}, more = {}) => ({
  tag: 'p',
  id,
  box: [10, y, 200, 20] as const,
  lines: [line(10, y, 180, `Words of ${id}`)],
  style,
  ...more,
});

describe('text-overlap', () => {
  test('what an annotation makes wider than its words lies beside others in its line', () => {
    const base: Node = {
      tag: 'ruby',
      id: 'base',
      box: [50, 20, 60, 15],
      style: { display: 'ruby' },
      lines: [line(50, 20, 60, 'harbour')],
    };
    const words = (inner: Node): Node => ({
      tag: 'p',
      id: 'words',
      box: [0, 20, 300, 15],
      lines: [line(0, 20, 58, 'At the')],
      children: [inner],
    });
    expect(seenBy(textOverlap, PAGE, [words({ ...base, tag: 'b', style: { display: 'inline' } })])).toEqual([
      expect.stringMatching(/ y 1\d/),
    ]);
    expect(seenBy(textOverlap, PAGE, [words(base)])).toEqual([]);
  });
  test('lines of two texts on one another; the one that was moved is at fault', () => {
    const moved = text('b', 28, {}, { margin: [-12, 0, 0, 0] });
    expect(seenBy(textOverlap, PAGE, [text('a', 20), moved])).toEqual(['#b y 4']);
  });
  test.each<[string, string, string[]]>([
    ['letters', '400;normal;none;-3px;start;0px', ['#p x 3']],
    ['words', '400;normal;none;normal;start;-4px', ['#p x 4']],
    ['words, hardly', '400;normal;none;normal;start;-2px', []],
    ['letters and words, both a little', '400;normal;none;-1px;start;-2.5px', ['#p x 3']],
  ])('%s set closer than they are drawn', (_, setting, expected) => {
    const words: Node = {
      ...text('p', 20, { 'font-size': '16px' }),
      setting,
      says: 'Words of p',
    };
    expect(seenBy(textOverlap, PAGE, [words])).toEqual(expected);
  });
  test('raised words that were moved up onto the line before theirs', () => {
    const note = (top: number): Node => ({
      tag: 'p',
      id: 'words',
      box: [0, 20, 300, 40],
      lines: [line(0, 20, 200, 'Sheets that lay in the sea'), line(0, 40, 60, 'are washed')],
      children: [
        {
          tag: 'sup',
          id: 'note',
          box: [60, top, 60, 14],
          style: { display: 'inline', 'vertical-align': 'super', 'font-size': '12px' },
          lines: [{ box: [60, top, 60, 14], text: 'see note four' }],
        },
      ],
    });
    expect(seenBy(textOverlap, PAGE, [note(32)])).toEqual([]);
    expect(seenBy(textOverlap, PAGE, [note(22)])).toEqual([expect.stringMatching(/^#\w+ y \d/)]);
  });
  test('lines of no height lie on one another whole; pieces of one line do not', () => {
    const lines = (height: string) =>
      seenBy(textOverlap, { width: 400 }, [
        {
          tag: 'p',
          id: 'p',
          box: [10, 20, 200, 0],
          style: { 'line-height': height },
          lines: [line(10, 10, 180), line(10, 10, 120)],
        },
      ]).length;
    expect(lines('0px')).toBe(1);
    expect(lines('24px')).toBe(0);
  });

  test('words that an ellipsis shortens do not lie on their neighbours with what is cut off', () => {
    /** An engine tells the whole line and what is left of it, rounded each for itself. */
    const name = (id: string, x: number, whole: number, left: number, overflow: string): Node => ({
      tag: 'p',
      id,
      box: [x, 10, 74, 34],
      style: { 'overflow-x': overflow, 'overflow-y': overflow, 'text-overflow': 'ellipsis' },
      lines: [line(x, whole, 88, 'simple-delete'), line(x, left, 60, 'simple-…')],
    });
    const told = (overflow: string) =>
      seenBy(textOverlap, PAGE, [name('a', 10, 20.02, 20, overflow), name('b', 84, 20.01, 20.03, overflow)]);
    expect(told('visible')).not.toEqual([]);
    expect(told('hidden')).toEqual([]);
  });
  test('two items of a grid in one field: the one on top is at fault, for all of its words', () => {
    const item = (id: string): Node => ({
      tag: 'div',
      id,
      box: [0, 0, 300, 80],
      children: [text(`${id}-head`, 10), text(`${id}-words`, 40)],
    });
    const told = (display: string) =>
      seenBy(textOverlap, PAGE, [
        {
          tag: 'div',
          id: 'both',
          box: [0, 0, 300, 80],
          style: { display },
          children: [item('a'), item('b')],
        },
      ]);
    expect(told('grid')).toEqual([expect.stringMatching(/^#b y/)]);
    expect(told('block')).toHaveLength(2);
  });
  test('what is pulled up is not why something that follows lies on it', () => {
    const [a, b] = [text('a', 20, {}, { margin: [-12, 0, 0, 0] }), text('b', 28)];
    expect(seenBy(textOverlap, PAGE, [a, b])).toEqual(['#b y 4']);
    expect(seenBy(textOverlap, PAGE, [{ ...a, margin: [0, 0, -12, 0] as const }, b])).toEqual(['#a y 4']);
  });
  test('the box of fixed height around a part that fills it, and the wide one in a column, are at fault', () => {
    const words = (y: number) => [
      line(10, 20, 180, 'Boats of the day'),
      line(10, y, 180, 'Boats of the night'),
    ];
    const part = { tag: 'div', id: 'part', box: [10, 20, 200, 20] as const, lines: words(44) };
    const card = (height: string) => ({
      tag: 'div',
      id: 'card',
      box: [10, 20, 200, 20] as const,
      children: [{ ...part, style: { height } }],
    });
    expect(seenBy(textOverlap, PAGE, [card('100%'), text('b', 42)])).toEqual(['#card y 10']);
    expect(seenBy(textOverlap, PAGE, [card('20px'), text('b', 42)])).toEqual(['#part y 10']);
    const wide = (width: string) => ({
      tag: 'div',
      id: 'column',
      box: [10, 20, 100, 20] as const,
      children: [{ ...text('wide', 20, { width }), lines: [line(10, 20, 180, 'Words of a card')] }],
    });
    const next = { ...text('next', 20), box: [130, 20, 100, 20] as const, lines: [line(130, 20, 90)] };
    expect(seenBy(textOverlap, PAGE, [wide('200px'), next])).toEqual(['#wide y 12']);
    expect(seenBy(textOverlap, PAGE, [wide('auto'), next])).toEqual(['#wide y 12']);
  });
  test('text that is turned a little, or by a quarter, keeps its thickness', () => {
    const little = text('b', 28, { transform: 'matrix(0.9994, 0.0349, -0.0349, 0.9994, 0, 0)' });
    expect(seenBy(textOverlap, PAGE, [text('a', 20), little])).toHaveLength(1);
    const side = (x: number) => ({
      ...text('b', 10, { transform: 'matrix(0, 1, -1, 0, 0, 0)', 'font-size': '16px' }),
      lines: [{ box: [x, 0, 18, 120] as const, text: 'Words at the side' }],
    });
    expect(seenBy(textOverlap, PAGE, [text('a', 60), side(100)])).toHaveLength(1);
    expect(seenBy(textOverlap, PAGE, [text('a', 60), side(300)])).toEqual([]);
  });
  test('tight setting is no overlap', () => {
    expect(seenBy(textOverlap, PAGE, [text('a', 20), text('b', 33)])).toEqual([]);
  });
  test('two texts may not reach into one another by what the lines of one may', () => {
    expect(seenBy(textOverlap, PAGE, [text('a', 20), text('b', 30.5)])).toEqual(['#b y 1']);
    const two = { ...text('a', 20), lines: [line(10, 20, 180, 'One text'), line(10, 31, 180, 'One text')] };
    expect(seenBy(textOverlap, PAGE, [two])).toEqual([]);
  });
  test('a line squeezed between two lines of another text lies on both; beside one of them it does not', () => {
    const two = (gap: number) => ({
      ...text('a', 20),
      box: [10, 20, 200, 70] as const,
      lines: [line(10, 20, 180, 'Words of a'), line(10, 20 + gap, 180, 'Words of a')],
    });
    const moved = (y: number, words = 'By night') => ({
      ...text('b', y, { position: 'absolute' }),
      lines: [line(10, y, 180, words)],
    });
    expect(seenBy(textOverlap, PAGE, [two(24), moved(32)])).toEqual(['#b y 2']);
    expect(seenBy(textOverlap, PAGE, [two(24), moved(32, 'At dawn')])).toEqual([]);
    expect(seenBy(textOverlap, PAGE, [two(40), moved(40)])).toEqual([]);
  });
  test('descenders in the capitals of another text lie on its letters; without any, the two only touch', () => {
    const above = (words: string) => ({ ...text('a', 20), lines: [line(10, 20, 180, words)] });
    expect(seenBy(textOverlap, PAGE, [above('Boats by night'), text('b', 31.5)])).toEqual(['#b y 3']);
    expect(seenBy(textOverlap, PAGE, [above('Boats are late'), text('b', 31.5)])).toEqual([]);
    expect(seenBy(textOverlap, PAGE, [above('Boats by night'), text('b', 33)])).toEqual([]);
  });
  test('a row of stars is no ornament behind words; another row of them says how many count', () => {
    const signs = (id: string, of: string) => ({ ...text(id, 20), lines: [line(10, 20, 90, of)] });
    expect(seenBy(textOverlap, PAGE, [signs('a', '★★★★★'), text('b', 22)])).toHaveLength(1);
    expect(seenBy(textOverlap, PAGE, [signs('a', '★'), text('b', 22)])).toEqual([]);
    expect(seenBy(textOverlap, PAGE, [signs('a', '☆☆☆☆☆'), signs('b', '★★★')])).toEqual([]);
  });
  test('ornament and copies of the same words are design', () => {
    expect(
      seenBy(textOverlap, PAGE, [text('a', 20), text('b', 22, {}, { flags: FLAG_ARIA_HIDDEN })]),
    ).toEqual([]);
    const glow = { ...text('a', 21), id: 'glow' };
    expect(seenBy(textOverlap, PAGE, [text('a', 20), glow])).toEqual([]);
  });
  test('where something opaque lies between them, one is hidden and not overprinted', () => {
    expect(
      seenBy(textOverlap, PAGE, [text('a', 20), text('b', 22, { ...WHITE, position: 'absolute' })]),
    ).toEqual([]);
  });
});

describe('covered', () => {
  test('menus that wait beside the screen, one on the other, hide nothing', () => {
    const menu = (id: string, x: number): Node => ({
      tag: 'nav',
      id,
      box: [x, 0, 200, id === 'under' ? 300 : 120],
      style: { ...WHITE, position: 'fixed', 'z-index': id === 'under' ? '1' : '2' },
      children: [{ tag: 'p', box: [x + 10, 20, 150, 20], lines: [line(x + 10, 20, 150)] }],
    });
    const at = (left: number) => seenBy(covered, PAGE, [menu('under', left), menu('over', left + 4)]);
    expect(at(PAGE.width)).toEqual([]);
    expect(at(PAGE.width - 190)).toHaveLength(1);
  });
  test.each<[string, Record<string, string>, boolean]>([
    ['dense glass', { 'background-color': 'rgba(0, 0, 0, 0.85)' }, true],
    ['thin glass', { 'background-color': 'rgba(0, 0, 0, 0.6)' }, false],
    ['a ground in a part that is half faded', { 'background-color': 'rgb(0, 0, 0)', opacity: '0.5' }, false],
    [
      'a ground in a part that is a little faded',
      { 'background-color': 'rgb(0, 0, 0)', opacity: '0.85' },
      true,
    ],
  ])('words under %s', (_, style, isHidden) => {
    const over = (height: number): Node => ({
      tag: 'div',
      id: 'over',
      box: [10, 10, 200, height],
      style: { position: 'absolute', ...style },
    });
    const card = (height: number): Node => ({
      tag: 'div',
      box: [10, 10, 200, 80],
      style: { position: 'relative' },
      children: [text('under', 20), over(height)],
    });
    expect(seenBy(covered, PAGE, [card(40)])).toHaveLength(isHidden ? 1 : 0);
    // What lies over all of a card dims it.
    expect(seenBy(covered, PAGE, [card(80)])).toEqual([]);
  });
  test('what pixels showed of a doubtful spot goes before what boxes say', () => {
    const under = text('under', 20);
    const over = {
      tag: 'img',
      id: 'over',
      box: [10, 10, 200, 40] as const,
      flags: FLAG_PICTURE | FLAG_REPLACED,
      style: { position: 'absolute' },
    };
    const sees = (hidden: number | null) => {
      const render = renderOf(PAGE, [under, over]);
      const [doubt] = covered.doubts!(render);
      const { uid } = render.view.snapshot.nodes;
      if (hidden !== null)
        render.view.snapshot.looks = [
          { cover: uid[doubt!.cover]!, under: uid[doubt!.under]!, ink: 200, hidden },
        ];
      return covered.check(render).map(({ message }) => /By pixels, \d+ px²/.exec(message)?.[0] ?? 'boxes');
    };
    expect(sees(null)).toEqual(['boxes']);
    expect(sees(0)).toEqual([]);
    expect(sees(20)).toEqual([]);
    expect(sees(180)).toEqual(['By pixels, 180 px²']);
  });
  test('each line under a picture is looked at by itself; one that was not counts as the nearest one', () => {
    const words = [20, 44, 68].map((y) => line(10, y, 180, `Words of ${y}`));
    const under = { ...text('under', 20), box: [10, 20, 200, 72] as const, lines: words };
    const over = {
      tag: 'img',
      box: [10, 10, 200, 90] as const,
      flags: FLAG_PICTURE | FLAG_REPLACED,
      style: { position: 'absolute' },
    };
    const render = renderOf(PAGE, [under, over]);
    const looks = covered.doubts!(render).map(({ cover, under: below, area }) => ({
      cover: render.view.uid(cover),
      under: render.view.uid(below),
      at: middleOf(area),
      ink: 200,
      // The head of the picture is clear.
      hidden: area.y > 60 ? 180 : 0,
    }));
    const told = (seen: typeof looks) => {
      render.view.snapshot.looks = seen;
      return covered.check(render).map(({ affected, message }) => [affected!.length, message.split('. ')[1]]);
    };
    expect(looks).toHaveLength(3);
    expect(told(looks)).toEqual([[1, 'By pixels, 180 px² of ink lie under it.']]);
    const [first, , last] = looks as [(typeof looks)[0], (typeof looks)[0], (typeof looks)[0]];
    expect(told([{ ...last, at: { x: 100, y: 50 } }])).toEqual([
      [3, 'By pixels, 180 px² of ink lie under it.'],
    ]);
    expect(told([first])).toEqual([]);
  });
  test('what is slight counts only where pixels bear it out', () => {
    const band = (y: number) => ({
      tag: 'div',
      id: 'band',
      box: [10, y, 200, 30] as const,
      style: { ...CARD, position: 'absolute' },
    });
    // The letters begin 3.6 px below the top of the line.
    const render = renderOf(PAGE, [text('under', 50), band(26)]);
    const [doubt, ...others] = covered.doubts!(render);
    expect(others).toEqual([]);
    expect(covered.check(render)).toEqual([]);
    const { uid } = render.view.snapshot.nodes;
    render.view.snapshot.looks = [
      { cover: uid[doubt!.cover]!, under: uid[doubt!.under]!, ink: 30, hidden: 28 },
    ];
    expect(covered.check(render)).toHaveLength(1);
  });
  test('a control that takes a third of a line is never meant to, one that takes less may be', () => {
    const over = (y: number): Node => ({
      tag: 'button',
      box: [10, y, 90, 32],
      flags: FLAG_CONTROL,
      style: { ...CARD, position: 'relative' },
    });
    const mild = (by: number) =>
      controlOverlap
        .check(renderOf(PAGE, [text('words', 50), over(70 - by)]))
        .map((sighting) => sighting.mild);
    // Of 20 px of line, 12 are ink.
    expect(mild(9)).toEqual([false]);
    expect(mild(8)).toEqual([true]);
  });
  test.each([
    ['a band laid on it', 50, [10, 26, 200, 32] as const, 'absolute'],
    ['a fixed bar, of the page as it stands', 18, [0, 0, 400, 26] as const, 'fixed'],
  ])(
    'of the little that %s hides of a line, pixels tell whether letters are in it',
    (_, y, box, position) => {
      const cover = { tag: 'div', id: 'cover', box, style: { ...CARD, position } };
      const render = renderOf(PAGE, [text('under', y), cover]);
      const [doubt] = covered.doubts!(render);
      const mild = () => covered.check(render).map((sighting) => sighting.mild);
      expect(mild()).toEqual([true]);
      const { uid } = render.view.snapshot.nodes;
      const look = { cover: uid[doubt!.cover]!, under: uid[doubt!.under]!, ink: 30 };
      render.view.snapshot.looks = [{ ...look, hidden: 28 }];
      expect(mild()).toEqual([false]);
      render.view.snapshot.looks = [{ ...look, hidden: 0 }];
      expect(mild()).toEqual([]);
    },
  );
  test('clear letters are there for something else, unless a ground fills them: that draws no box', () => {
    const band = {
      tag: 'div',
      id: 'band',
      box: [10, 50, 100, 30] as const,
      style: { ...CARD, position: 'absolute' },
    };
    const CLEAR = { color: 'rgba(0, 0, 0, 0)' };
    const FILL = {
      'background-image': 'linear-gradient(rgb(0, 0, 90), rgb(90, 0, 0))',
      'background-clip': 'text',
    };
    const filled = (children: Node[]): Node => ({ tag: 'h2', box: [10, 50, 200, 20], style: FILL, children });
    expect(seenBy(covered, PAGE, [text('under', 50, CLEAR), band])).toEqual([]);
    expect(seenBy(covered, PAGE, [text('under', 50, { ...CLEAR, ...FILL }), band])).toEqual(['#band y 12']);
    expect(seenBy(covered, PAGE, [filled([text('under', 50, CLEAR)]), band])).toEqual(['#band y 12']);
    const moved = { position: 'relative', ...FILL };
    expect(seenBy(covered, PAGE, [text('under', 50), { ...band, style: moved }])).toEqual([]);
    expect(
      seenBy(covered, PAGE, [
        text('under', 50),
        { ...band, style: { ...moved, 'background-clip': 'border-box' } },
      ]),
    ).toEqual(['#band y 12']);
  });
  const panel = (
    style: Record<string, string>,
    box: readonly [number, number, number, number] = [10, 24, 200, 60],
  ) => ({
    tag: 'aside',
    id: 'panel',
    box,
    style: { ...WHITE, ...style },
  });
  test('an opaque panel over text', () => {
    expect(seenBy(covered, PAGE, [text('a', 20), panel({ position: 'absolute' })])).toEqual(['#panel y 11']);
  });
  test('a link in a line whose ground lies on the words of the line above; a button that does is another rule’s', () => {
    const link = (id: string, y: number, display: string) => ({
      tag: 'a',
      id,
      box: [10, y, 120, 38] as const,
      flags: FLAG_CONTROL,
      style: { display, 'background-color': 'rgb(30, 60, 100)' },
      lines: [line(20, y + 9, 100, `Boats to ${id}`)],
    });
    const paragraph = (display: string, step: number) => [
      {
        tag: 'p',
        box: [10, 20, 300, 60] as const,
        children: [link('near', 11, display), link('far', 11 + step, display)],
      },
    ];
    expect(seenBy(covered, PAGE, paragraph('inline', 20))).toEqual(['#far y 4']);
    expect(seenBy(covered, PAGE, paragraph('inline', 38))).toEqual([]);
    expect(seenBy(covered, PAGE, paragraph('inline-block', 20))).toEqual([]);
  });
  test('of large letters so many px count as of small ones, and a control on them is as bad', () => {
    const large = { tag: 'h1', box: [10, 10, 300, 60] as const, style: { 'font-size': '52px' } };
    const title = { ...large, lines: [{ box: [10, 10, 300, 60] as const, text: 'Out to Far Isle' }] };
    const over = (y: number) => panel({ position: 'absolute' }, [10, y, 200, 60]);
    const foot = Math.max(
      ...sceneOf(renderOf(PAGE, [title]).view).inks.map(({ full }) => full.y + full.height),
    );
    expect(seenBy(covered, PAGE, [title, over(foot - 7)])).toEqual(['#panel y 7']);
    expect(seenBy(covered, PAGE, [title, over(foot - 3)])).toEqual([]);
    const button = (y: number) => ({
      ...over(y),
      tag: 'button',
      flags: FLAG_CONTROL,
      style: { ...CARD, position: 'absolute' },
    });
    expect(seenBy(controlOverlap, PAGE, [title, button(foot - 7)])).toEqual(['#panel y 7']);
    expect(seenBy(controlOverlap, PAGE, [title, button(foot - 3)])).toEqual([]);
  });
  test('off the page there is nothing to hide, and nothing that lies on anything', () => {
    const off = { ...text('off', 20), box: [-190, 20, 200, 20] as const };
    const words = { ...off, lines: [line(-190, 20, 180)] };
    const drawer = panel({ position: 'fixed' }, [-260, 0, 260, 800]);
    expect(seenBy(covered, PAGE, [words, drawer])).toEqual([]);
    const rtl = { ...PAGE, direction: 'rtl' } as const;
    expect(seenBy(covered, rtl, [words, drawer])).toEqual([]);
    expect(seenBy(covered, rtl, [words, panel({ position: 'absolute' }, [-260, 0, 260, 800])])).toEqual([
      '#panel y 12',
    ]);
    const link = { ...drawer, tag: 'button', flags: FLAG_CONTROL, style: { ...WHITE, 'z-index': '-1' } };
    expect(seenBy(controlOverlap, PAGE, [words, { ...link, box: [-200, 18, 190, 30] as const }])).toEqual([]);
  });
  test('what is under the text, or in the top layer, hides nothing', () => {
    expect(seenBy(covered, PAGE, [text('a', 20), panel({ position: 'absolute', 'z-index': '-1' })])).toEqual(
      [],
    );
    expect(
      seenBy(covered, PAGE, [text('a', 20), { ...panel({ position: 'fixed' }), flags: FLAG_TOP_LAYER }]),
    ).toEqual([]);
  });
  test('what is fixed with the words that a sign lies on is looked at as on the page', () => {
    const sign: Node = {
      tag: 'svg',
      id: 'sign',
      box: [100, 20, 20, 20],
      flags: FLAG_PICTURE | FLAG_REPLACED,
      style: { position: 'absolute' },
    };
    const bar = (position: string, ...children: Node[]): Node => ({
      tag: 'div',
      box: [0, 0, 400, 60],
      style: { position },
      children,
    });
    const doubts = (...nodes: Node[]) => covered.doubts!(renderOf(PAGE, nodes)).length;
    expect(doubts(bar('static', text('words', 20), sign))).toBe(1);
    expect(doubts(bar('fixed', text('words', 20), sign))).toBe(1);
    expect(doubts(bar('static', text('words', 20)), bar('fixed', sign))).toBe(0);
  });
  test('in a dialog, what lies on its own words', () => {
    const dialog: Node = {
      tag: 'dialog',
      box: [0, 0, 400, 300],
      flags: FLAG_TOP_LAYER,
      style: { position: 'fixed' },
      children: [text('a', 20), panel({ position: 'absolute' }, [0, 0, 400, 60])],
    };
    expect(seenBy(covered, PAGE, [dialog])).toEqual(['#panel y 12']);
  });
  test('a fixed bar hides for good only what scrolling can not bring out from under it', () => {
    const bar = panel({ position: 'fixed' }, [0, 740, 400, 60]);
    expect(seenBy(covered, PAGE, [text('middle', 750), bar])).toEqual([]);
    expect(seenBy(covered, PAGE, [text('last', 1970), bar])).toEqual(['#panel y 12']);
    expect(seenBy(covered, { ...PAGE, scrollHeight: 2080 }, [text('last', 1970), bar])).toEqual([]);
  });
  test('a fixed header with content under it from the start', () => {
    expect(seenBy(covered, PAGE, [text('first', 20), panel({ position: 'fixed' }, [0, 0, 400, 60])])).toEqual(
      ['#panel y 12'],
    );
  });
});

describe('covered by what belongs to it', () => {
  const words = [0, 1, 2].map((row) => line(20, 20 + 24 * row, 200, 'Seed cake in the galley'));
  const message = (mark: readonly [number, number, number, number], style: Record<string, string>) => ({
    tag: 'div',
    id: 'message',
    box: [10, 10, 240, 90] as const,
    style: CARD,
    lines: words,
    children: [{ tag: 'span', id: 'mark', box: mark, style: { ...WHITE, ...style } }],
  });
  test('a mark that was moved onto the words of its own element', () => {
    expect(seenBy(covered, PAGE, [message([60, 44, 90, 20], { position: 'absolute' })])).toEqual([
      '#mark y 12',
    ]);
  });
  test('at their corner, or in its place in the text, it is no harm', () => {
    expect(seenBy(covered, PAGE, [message([212, 12, 40, 20], { position: 'absolute' })])).toEqual([]);
    expect(seenBy(covered, PAGE, [message([60, 44, 90, 20], { display: 'inline' })])).toEqual([]);
  });
  test('the ground of marked words is painted over the lines before their own, and under those after it', () => {
    const marked = (room: number) => message([60, 44 - room, 90, 20 + 2 * room], { display: 'inline' });
    expect(seenBy(covered, PAGE, [marked(3)])).toEqual([]);
    expect(seenBy(covered, PAGE, [marked(14)])).toEqual(['#mark y 5']);
    const block = message([60, 30, 90, 48], {});
    expect(seenBy(covered, PAGE, [block])).toEqual([]);
  });
});

describe('covered by what sticks', () => {
  const bar = (style: Record<string, string>, y: number) => ({
    tag: 'div',
    id: 'bar',
    box: [0, y, 400, 80] as const,
    style: { position: 'sticky', 'background-color': 'rgb(0, 40, 60)', ...style },
  });
  const flow = (y: number) => ({ tag: 'p', id: 'flow', box: [10, y - 20, 200, 20] as const });
  test('at its own place at the end of the page it hides what was pulled under it', () => {
    const under = text('end', 1940, {}, { margin: [-70, 0, 0, 0] });
    const page = { ...PAGE, bodyHeight: 2000 };
    expect(seenBy(covered, page, [flow(1920), bar({ bottom: '0px' }, 720), under])).toEqual(['#end y 12']);
  });
  test('what it only passes on its way comes free', () => {
    const page = { ...PAGE, bodyHeight: 2000 };
    expect(seenBy(covered, page, [text('middle', 750), flow(1920), bar({ bottom: '0px' }, 720)])).toEqual([]);
    expect(seenBy(covered, page, [bar({ top: '0px' }, 0), text('next', 90)])).toEqual([]);
  });
});

describe('covered at the end of a scroll container', () => {
  const list = (room: number) => ({
    tag: 'div',
    id: 'list',
    box: [0, 100, 400, 700] as const,
    style: { 'overflow-x': 'auto', 'overflow-y': 'auto' },
    scroll: [400, 700, 400, 1400 + room] as const,
    children: [text('first', 120), text('last', 1470)],
  });
  const bar = {
    tag: 'div',
    id: 'bar',
    box: [0, 730, 400, 70] as const,
    style: { position: 'fixed', 'background-color': 'rgb(0, 40, 60)' },
  };
  const APP = { width: 400, height: 800 };
  test('a bar at the foot of the screen hides what is last in the list, unless room is kept', () => {
    expect(seenBy(covered, APP, [list(0), bar])).toEqual(['#bar y 12']);
    expect(seenBy(covered, APP, [list(90), bar])).toEqual([]);
  });
  test('a bar in the scroll container that is fixed to the screen does not scroll with it, whatever scrolls nothing between', () => {
    const part = (children: Node[]): Node => ({
      tag: 'ul',
      box: [0, 100, 400, 1400],
      style: { 'overflow-x': 'auto', 'overflow-y': 'auto' },
      scroll: [400, 1400, 400, 1400],
      children,
    });
    const shell = (room: number): Node => ({
      ...list(room),
      children: [part([text('first', 120), text('middle', 750), text('last', 1470)]), bar],
    });
    expect(seenBy(covered, APP, [shell(0)])).toEqual(['#bar y 12']);
    expect(seenBy(covered, APP, [shell(90)])).toEqual([]);
  });
  test('where the page scrolls too, the container comes out from under it', () => {
    expect(seenBy(covered, { ...APP, scrollHeight: 1600 }, [list(0), bar])).toEqual([]);
  });
});

describe('control-overlap', () => {
  const button = (id: string, x: number, more = {}) => ({
    tag: 'button',
    id,
    box: [x, 10, 100, 40] as const,
    flags: FLAG_CONTROL,
    style: { ...CARD, display: 'inline-block' },
    ...more,
  });
  test('one control on another', () => {
    expect(
      seenBy(controlOverlap, PAGE, [button('a', 10), button('b', 80, { margin: [0, 0, 0, -30] })]),
    ).toEqual(['#b x 30']);
    expect(seenBy(controlOverlap, PAGE, [button('a', 10), button('b', 110)])).toEqual([]);
  });
  test('what a margin lays over its like, as shingles lie, clear of all words, is design, but no field', () => {
    const told = (flags: number) => {
      const alike = { id: undefined, class: 'seat', flags };
      const [first, second] = [button('a', 10, alike), button('b', 80, { ...alike, margin: [0, 0, 0, -30] })];
      return seenBy(controlOverlap, PAGE, [first, second]).length;
    };
    expect(told(FLAG_CONTROL)).toBe(0);
    expect(told(FLAG_CONTROL | FLAG_FIELD)).toBe(1);
  });
  test('a see-through button that stays on the screen, on words that no scrolling frees', () => {
    const still = (style: Record<string, string>) =>
      button('menu', 10, { style: { position: 'fixed', display: 'inline-block', ...style } });
    const glass = { 'background-color': 'rgba(0, 0, 0, 0.5)' };
    const told = (y: number, style: Record<string, string>) =>
      seenBy(controlOverlap, PAGE, [text('words', y), still(style)]);
    expect(told(15, glass)).toEqual([expect.stringMatching(/^#menu/)]);
    // Farther down, the words have a place to be read in; what is opaque is told by `covered`.
    expect(
      seenBy(controlOverlap, PAGE, [{ ...text('words', 600) }, { ...still(glass), box: [10, 595, 100, 40] }]),
    ).toEqual([]);
    expect(told(15, WHITE)).toEqual([]);
  });
  test('a box to be ticked lies on the words of its own label only where it was moved', () => {
    const label = (style: Record<string, string>) => ({
      tag: 'label',
      id: 'label',
      box: [10, 10, 200, 20] as const,
      style: { display: 'inline' },
      lines: [line(30, 10, 120)],
      children: [
        {
          tag: 'input',
          id: 'tick',
          box: [8, 2, 39, 39] as const,
          flags: FLAG_CONTROL | FLAG_REPLACED,
          style: { display: 'inline-block', ...style },
        },
      ],
    });
    expect(seenBy(controlOverlap, PAGE, [label({ transform: 'matrix(3, 0, 0, 3, 0, 0)' })])).toHaveLength(1);
    expect(seenBy(controlOverlap, PAGE, [label({})])).toEqual([]);
  });
  test('a small button on a large link is design, unless it lies on its words', () => {
    const card = { tag: 'a', id: 'card', box: [10, 10, 300, 200] as const, flags: FLAG_CONTROL };
    const heart = {
      tag: 'button',
      id: 'heart',
      box: [270, 20, 30, 30] as const,
      flags: FLAG_CONTROL,
      style: { ...CARD, position: 'absolute' },
    };
    expect(seenBy(controlOverlap, PAGE, [card, heart])).toEqual([]);
    expect(seenBy(controlOverlap, PAGE, [{ ...card, lines: [line(200, 25, 100)] }, heart])).toEqual([
      '#heart y 30',
    ]);
  });
  test('a label on the border of a field brings a background that interrupts it', () => {
    const field = {
      tag: 'select',
      id: 'field',
      box: [10, 20, 200, 40] as const,
      border: [1, 1, 1, 1] as const,
      flags: FLAG_CONTROL | FLAG_FIELD | FLAG_REPLACED,
      style: { display: 'inline-block' },
    };
    const label = (style: Record<string, string>) => ({
      tag: 'label',
      id: 'label',
      box: [20, 10, 80, 20] as const,
      style: { position: 'absolute', ...style },
      flags: FLAG_LABEL,
      lines: [line(20, 10, 80, 'Landing')],
    });
    expect(seenBy(controlOverlap, PAGE, [field, label(WHITE)])).toEqual([]);
    expect(seenBy(controlOverlap, PAGE, [field, label({})])).toHaveLength(1);
  });
  test('in a field there is room for a unit and a label, not on what is written', () => {
    const field = (written: number) => ({
      tag: 'input',
      id: 'field',
      box: [10, 10, 200, 40] as const,
      flags: FLAG_CONTROL | FLAG_FIELD | FLAG_REPLACED,
      style: { display: 'inline-block' },
      lines: [{ ...line(20, 20, written), field: true }],
    });
    const unit = {
      tag: 'label',
      id: 'unit',
      box: [170, 20, 30, 20] as const,
      style: { position: 'absolute' },
      flags: FLAG_LABEL,
      lines: [line(170, 20, 30, 'kg')],
    };
    expect(seenBy(controlOverlap, PAGE, [field(60), unit])).toEqual([]);
    expect(seenBy(controlOverlap, PAGE, [field(175), unit])).toHaveLength(1);
  });
  test('the label of one field has no room in another one', () => {
    const field = (id: string, y: number): Node => ({
      tag: 'input',
      id,
      box: [10, y, 200, 40],
      flags: FLAG_CONTROL | FLAG_FIELD | FLAG_REPLACED,
      style: { display: 'inline-block' },
    });
    const label: Node = {
      tag: 'label',
      id: 'label',
      box: [10, 20, 80, 20],
      flags: FLAG_LABEL,
      lines: [line(14, 20, 50, 'Nights')],
    };
    // Rows 0 and 1 are the page's own.
    const nodes = [field('first', 10), label, field('second', 60)];
    const told = (labelled: number) => seenBy(controlOverlap, { ...PAGE, labels: [[labelled, 3]] }, nodes);
    expect(told(2)).toEqual([]);
    expect(told(4)).toHaveLength(1);
  });
  test('a button in a field is its own where it stands beside it, or in a box made for the two', () => {
    const field: Node = {
      tag: 'input',
      id: 'field',
      box: [10, 10, 200, 40],
      flags: FLAG_CONTROL | FLAG_FIELD | FLAG_REPLACED,
      style: { display: 'inline-block' },
      lines: [{ ...line(20, 20, 60), field: true }],
    };
    const button: Node = {
      tag: 'button',
      id: 'button',
      box: [168, 12, 36, 36],
      flags: FLAG_CONTROL,
      style: { position: 'absolute', 'background-color': 'rgb(230, 240, 255)' },
    };
    const within = (height: number, children: readonly Node[]): Node => ({
      tag: 'div',
      box: [10, 10, 200, height],
      style: { position: 'relative' },
      children,
    });
    const apart = [within(40, [field]), within(80, [button])];
    expect(seenBy(controlOverlap, PAGE, [within(300, [field, button])])).toEqual([]);
    expect(seenBy(controlOverlap, PAGE, [within(60, apart)])).toEqual([]);
    expect(seenBy(controlOverlap, PAGE, [within(300, apart)])).toHaveLength(1);
    // Below several fields, what lies on the last one is the button of all of them, unless it is as small as a sign.
    const other: Node = { ...field, id: 'other', box: [10, 200, 200, 40], lines: [] };
    const wide: Node = { ...button, box: [118, 12, 90, 36] };
    expect(seenBy(controlOverlap, PAGE, [within(300, [field, wide])])).toEqual([]);
    expect(seenBy(controlOverlap, PAGE, [within(300, [other, field, wide])])).toHaveLength(1);
    expect(seenBy(controlOverlap, PAGE, [within(300, [other, field, button])])).toEqual([]);
    // A list to choose a country's number from stands in the field of a number; a field that is written into is no part of another.
    const inner = (tag: string): Node => ({
      ...button,
      tag,
      flags: FLAG_CONTROL | FLAG_FIELD | FLAG_REPLACED,
    });
    expect(seenBy(controlOverlap, PAGE, [within(60, [field, inner('select')])])).toEqual([]);
    expect(seenBy(controlOverlap, PAGE, [within(60, [field, inner('input')])])).toHaveLength(1);
  });
});

describe('text in a card that is turned', () => {
  const [cos, sin] = [Math.cos(-0.2443), Math.sin(-0.2443)];
  /** The upright box round a rectangle that is turned by 14 degrees about the page's corner, and moved into the page. */
  const turned = (x: number, y: number, width: number, height: number) => {
    const [w, h] = [width * cos + height * -sin, width * -sin + height * cos];
    const [cx, cy] = [x + width / 2, y + height / 2];
    return [20 + cx * cos - cy * sin - w / 2, 120 + cx * sin + cy * cos - h / 2, w, h] as const;
  };
  const style = { transform: `matrix(${cos}, ${sin}, ${-sin}, ${cos}, 0, 0)`, 'font-size': '16px' };
  const lines = (gap: number) =>
    [0, gap].map((y, i) => ({
      box: turned(10, 20 + y, 260, 19),
      text: i === 0 ? 'Boats to the north' : 'and back',
    }));
  const card = (gap: number, more: readonly Node[] = []) => ({
    tag: 'div',
    id: 'card',
    box: turned(0, 0, 280, 90),
    style: { ...CARD, ...style },
    children: [
      {
        tag: 'p',
        id: 'words',
        box: turned(10, 20, 260, 19 + gap),
        style: { 'font-size': '16px' },
        lines: lines(gap),
      },
      ...more,
    ],
  });
  const button = (y: number) => ({
    tag: 'button',
    id: 'book',
    box: turned(10, y, 120, 30),
    flags: FLAG_CONTROL,
    style: { ...WHITE, position: 'absolute' },
  });
  test('its lines keep clear of one another, unless they are set too close', () => {
    expect(seenBy(textOverlap, PAGE, [card(24)])).toEqual([]);
    expect(seenBy(textOverlap, PAGE, [card(6)])).toHaveLength(1);
  });
  test('a button below them lies on them only where it does', () => {
    expect(seenBy(controlOverlap, PAGE, [card(24, [button(66)])])).toEqual([]);
    expect(seenBy(controlOverlap, PAGE, [card(24, [button(46)])])).toHaveLength(1);
    expect(seenBy(covered, PAGE, [card(24, [{ ...button(66), tag: 'div', flags: 0 }])])).toEqual([]);
    expect(seenBy(covered, PAGE, [card(24, [{ ...button(46), tag: 'div', flags: 0 }])])).toHaveLength(1);
  });
});
