import { isAtTopEdge } from '../../../src/core/intent/bars.js';
import {
  isClosed,
  isFaded,
  isFollowedByMore,
  isSwitchFace,
  isVisuallyHidden,
} from '../../../src/core/intent/cutters.js';
import { isWindowOnMore } from '../../../src/core/intent/opened.js';
import { isDecoration } from '../../../src/core/intent/decoration.js';
import type { Loss } from '../../../src/core/intent/loss.js';
import { lossesOf } from '../../../src/core/intent/losses.js';
import { isIndentedAway, isOffStage } from '../../../src/core/intent/off-stage.js';
import {
  fillsScreen,
  hangsFromControl,
  isDismissible,
  isLaidOverPage,
  isMarkAtCorner,
} from '../../../src/core/intent/overlays.js';
import { areAlternatives, areShingled, isStandIn } from '../../../src/core/intent/stacks.js';
import { isSmallRaised, isSymbols } from '../../../src/core/intent/typography.js';
import { sceneOf, type Scene } from '../../../src/core/layout/scene.js';
import { mainPortOf } from '../../../src/core/layout/scrollport.js';
import {
  FLAG_ARIA_HIDDEN,
  FLAG_CONTROL,
  FLAG_FIELD,
  FLAG_OVERLAY,
  FLAG_PICTURE,
  FLAG_REPLACED,
  FLAG_TEXT,
  FLAG_TOP_LAYER,
} from '../../../src/core/layout/snapshot.js';
import { line, WHITE } from '../../support/render.js';
import { viewOf, type Node } from '../../support/snapshot.js';

const PAGE = { width: 400, height: 800, scrollHeight: 3000 };
const scene = (...children: Node[]) => sceneOf(viewOf(PAGE, children));
/** The row of the element with an id. */
const at = ({ view }: Scene, id: string) =>
  Array.from({ length: view.count }, (_, i) => i).find((i) => view.id(i) === id)!;
const holds = (predicate: (scene: Scene, i: number) => boolean, ...children: Node[]) => {
  const made = scene(...children);
  return predicate(made, at(made, 'x'));
};

const x = (more: Partial<Node> = {}): Node => ({ tag: 'div', id: 'x', box: [0, 0, 100, 40], ...more });
const HIDDEN = { 'overflow-x': 'hidden', 'overflow-y': 'hidden' };

describe('ornament and type', () => {
  test('decoration: hidden from assistive technology, or too faint to be read', () => {
    expect(holds(isDecoration, x())).toBe(false);
    expect(holds(isDecoration, x({ flags: FLAG_ARIA_HIDDEN }))).toBe(true);
    // A menu that is told to be closed, and yet is seen.
    const link: Node = { tag: 'a', box: [0, 0, 90, 20], flags: FLAG_ARIA_HIDDEN | FLAG_CONTROL };
    expect(holds(isDecoration, x({ flags: FLAG_ARIA_HIDDEN, children: [link] }))).toBe(false);
    // A link that says again what another one says.
    expect(holds(isDecoration, { ...link, id: 'x' })).toBe(true);
    expect(holds(isDecoration, x({ style: { opacity: '0.2' } }))).toBe(true);
    expect(holds(isDecoration, x({ flags: FLAG_TEXT, style: { color: 'rgba(0, 0, 80, 0.12)' } }))).toBe(true);
    expect(holds(isDecoration, x({ flags: FLAG_TEXT, style: { color: 'rgb(0 0 80 / 90%)' } }))).toBe(false);
  });
  test('what a control is seen by is no ornament though it is read out from elsewhere, nor is what others say out of sight', () => {
    const words = (text: string, more: Partial<Node> = {}): Node => ({
      tag: 'span',
      box: [0, 0, 80, 20],
      flags: FLAG_TEXT,
      lines: [line(0, 0, 80, text)],
      ...more,
    });
    const seen = words('Book a boat', { id: 'x', flags: FLAG_TEXT | FLAG_ARIA_HIDDEN });
    const around = (tag: string, ...children: Node[]): Node => ({
      tag,
      box: [0, 0, 100, 20],
      flags: tag === 'a' ? FLAG_CONTROL : 0,
      children,
    });
    expect(holds(isDecoration, around('a', seen))).toBe(false);
    expect(holds(isDecoration, around('p', seen))).toBe(true);
    expect(holds(isDecoration, around('p', seen, words('Book', { box: [0, 0, 1, 1] })))).toBe(false);
    // The same words twice are an effect, and a sign says nothing.
    expect(holds(isDecoration, around('a', words('Book a boat'), seen))).toBe(true);
    expect(holds(isDecoration, around('a', { ...seen, lines: [line(0, 0, 80, '→')] }))).toBe(true);
  });
  test('superscripts and ruby are small and raised, plain inline text is not', () => {
    const inline = { display: 'inline' };
    const raised = (made: Scene, i: number) => isSmallRaised(made.view, i);
    expect(holds(raised, x({ tag: 'sup', style: inline }))).toBe(true);
    expect(holds(raised, x({ tag: 'span', style: { ...inline, 'vertical-align': 'super' } }))).toBe(true);
    expect(holds(raised, x({ tag: 'rt', style: { display: 'ruby-text' } }))).toBe(true);
    expect(holds(raised, x({ tag: 'span', style: inline }))).toBe(false);
  });
  test('signs are no words, in any script', () => {
    const signs = (text: string) => {
      const made = scene(x({ lines: [line(0, 0, 80, text)] }));
      return isSymbols(made.view, made.inks[0]!);
    };
    expect(['★★★', '→ …', '• • •'].map(signs)).toEqual([true, true, true]);
    expect(['★ 4', 'مرحبا', '灯台'].map(signs)).toEqual([false, false, false]);
  });
  test('words that are indented away', () => {
    const away = (indent: string) => holds(isIndentedAway, x({ style: { 'text-indent': indent } }));
    expect(['-9999px', '200%', '-100%'].map(away)).toEqual([true, true, true]);
    expect(['0px', '24px', '-24px', '50%'].map(away)).toEqual([false, false, false, false]);
  });
});

test('a count stands at the rim of words; in the middle of them, or large, it is none', () => {
  const mark = (left: number, top: number, width = 18) =>
    holds(
      (made, i) => isMarkAtCorner(made, i, { rect: { x: left, y: top, width, height: 18 } }),
      x({ lines: [line(0, 0, 200), line(0, 24, 200), line(0, 48, 200)] }),
    );
  expect(mark(190, -6)).toBe(true);
  // The first letter is no corner of words.
  expect(mark(-6, -6)).toBe(false);
  expect(mark(90, 26)).toBe(false);
  expect(mark(150, -6, 90)).toBe(false);
});

describe('what cuts on purpose', () => {
  test('clipped to a dot for screen readers', () => {
    expect(holds(isVisuallyHidden, x({ box: [0, 0, 1, 1] }))).toBe(true);
    expect(holds(isVisuallyHidden, x({ style: { 'clip-path': 'inset(50%)' } }))).toBe(true);
    expect(holds(isVisuallyHidden, x({ style: { clip: 'rect(0px, 0px, 0px, 0px)' } }))).toBe(true);
    expect(holds(isVisuallyHidden, x({ style: { 'clip-path': 'inset(0px round 8px)' } }))).toBe(false);
    expect(holds(isVisuallyHidden, x({ style: { 'clip-path': 'inset(0px 0px 100%)' } }))).toBe(true);
    expect(holds(isVisuallyHidden, x({ style: { 'clip-path': 'inset(0px 0px 60%)' } }))).toBe(false);
  });
  test('a switch of two words shows one of them, over a check box', () => {
    const word = (left: number, text: string): Node => ({
      tag: 'span',
      box: [left, 0, 60, 28],
      lines: [line(left + 10, 4, 30, text)],
    });
    const face = (...inside: Node[]) =>
      holds((made, i) => isSwitchFace(made, { cutter: i, whole: true, axis: 'x' } as Loss), {
        ...x({ box: [0, 0, 60, 28] }),
        children: inside,
      });
    const box: Node = { tag: 'input', box: [0, 0, 10, 10], flags: FLAG_CONTROL };
    expect(face(word(0, 'On'), box, word(60, 'Off'))).toBe(true);
    expect(face(word(0, 'On'), word(60, 'Off'))).toBe(false);
    expect(face(word(60, 'On'), box, word(120, 'Off'))).toBe(false);
  });
  test('a drawer that its own margin pulls aside waits; words pulled by a part of their width are lost', () => {
    const pulled = (margin: number) =>
      holds(
        (made, cutter) => {
          const ink = made.inks.find(({ kind }) => kind === 'text')!;
          return isOffStage(made, { ink, cutter, whole: true } as Loss);
        },
        x({
          box: [0, 0, 400, 100],
          style: HIDDEN,
          children: [
            {
              tag: 'nav',
              box: [margin, 0, 200, 100],
              margin: [0, 0, 0, margin],
              lines: [line(margin, 8, 40)],
            },
          ],
        }),
      );
    expect(pulled(-200)).toBe(true);
    expect(pulled(-120)).toBe(false);
  });
  test('an offset of so many px puts a thing into its card, be that too narrow; a drawer waits beside it by all of its size', () => {
    const placed = (left: string, ...others: Node[]) =>
      holds(
        (made, cutter) => {
          const ink = made.inks.find(({ kind }) => kind === 'text')!;
          return isOffStage(made, { ink, cutter, whole: true } as Loss);
        },
        x({
          box: [0, 0, 300, 100],
          style: HIDDEN,
          children: [
            {
              tag: 'b',
              box: [420, 0, 60, 20],
              style: { position: 'absolute', left },
              lines: [line(420, 0, 60)],
            },
            ...others,
          ],
        }),
      );
    expect(placed('420px')).toBe(false);
    expect(placed('100%')).toBe(true);
    expect(placed('300px')).toBe(true);
    expect(placed('2000px')).toBe(true);
    // One of a row of slides.
    expect(placed('420px', { tag: 'b', box: [0, 0, 60, 20], style: { position: 'absolute' } })).toBe(true);
  });
  test('a transform hides what would be in sight without it, or moves a strip of things alike', () => {
    /** A part that is moved down by so much, in a window of 40 px, with a line below that. */
    const moved = (by: number, inner: Partial<Node>) =>
      holds(
        (made, cutter) => {
          const ink = made.inks.find(({ kind }) => kind === 'text')!;
          const loss = { ink, cutter, whole: true, axis: 'y', rect: ink.full } as Loss;
          return isOffStage(made, loss);
        },
        x({
          box: [0, 0, 200, 40],
          style: HIDDEN,
          children: [
            {
              tag: 'div',
              box: [0, by, 200, 80],
              style: { transform: `matrix(1, 0, 0, 1, 0, ${by})` },
              ...inner,
            },
          ],
        }),
      );
    const below: Partial<Node> = { lines: [line(0, 50, 80)] };
    expect(moved(40, below)).toBe(true);
    expect(moved(4, below)).toBe(false);
    // Drawn larger in its place it waits for nothing.
    expect(moved(0, { ...below, style: { transform: 'matrix(1.2, 0, 0, 1.2, 0, 0)' } })).toBe(false);
    const roll = (tag: string): Partial<Node> => ({
      children: [
        { tag: 'b', box: [0, 4, 200, 40] },
        { tag, box: [0, 44, 200, 40], lines: [line(0, 50, 80)] },
      ],
    });
    expect(moved(4, roll('b'))).toBe(true);
    expect(moved(4, roll('p'))).toBe(false);
  });
  test('closed, itself or by what holds it; a low box with room is not', () => {
    const closed = (...children: Node[]) =>
      holds((made, i) => isClosed(made, { cutter: i, whole: true } as Loss), ...children);
    expect(closed(x({ box: [0, 0, 100, 0], style: HIDDEN }))).toBe(true);
    expect(closed({ tag: 'div', box: [0, 0, 100, 0], style: HIDDEN, children: [x()] })).toBe(true);
    expect(closed(x({ box: [0, 0, 100, 12], style: HIDDEN }))).toBe(false);
  });
  test('what still shows a part of its words, in its padding, is too small and not closed', () => {
    const low = x({
      box: [0, 0, 100, 16],
      padding: [8, 8, 8, 8],
      style: HIDDEN,
      lines: [line(8, 8, 60, 'Book')],
    });
    expect(lossesOf(scene(low))).toHaveLength(1);
    const shut = x({ box: [0, 0, 100, 0], style: HIDDEN, lines: [line(8, 8, 60, 'Book')] });
    expect(lossesOf(scene(shut))).toEqual([]);
  });
  test('a control opens it further: named by aria-controls, or a button right after a max-height', () => {
    const button: Node = { tag: 'button', box: [0, 400, 80, 30], flags: FLAG_CONTROL };
    /** Of the body's children, the first opens what has the row. */
    const isOpened = (row: number, ...children: Node[]) => {
      const made = sceneOf(viewOf({ ...PAGE, openers: [[2, row]] }, [button, ...children]));
      return isWindowOnMore(made, { ink: { node: at(made, 'x') } } as Loss);
    };
    expect(isOpened(3, x())).toBe(true);
    expect(isOpened(3, { tag: 'div', box: [0, 0, 9, 9], children: [x()] })).toBe(true);
    // An accordion that is itself cut off: what its buttons open is not what is lost.
    expect(isOpened(4, x({ children: [{ tag: 'p', box: [0, 0, 9, 9] }] }))).toBe(false);
    expect(holds((made, i) => isWindowOnMore(made, { ink: { node: i } } as Loss), x())).toBe(false);
    const more: Node = { tag: 'button', box: [0, 40, 80, 20], flags: FLAG_CONTROL };
    const text: Node = { tag: 'p', box: [0, 40, 80, 20] };
    const low = x({ style: { 'max-height': '40px' } });
    const cut =
      (whole: boolean, lost = 'x', px = 2) =>
      (made: Scene, i: number) =>
        isFollowedByMore(made, {
          ...{ cutter: i, whole, px, rect: { x: 0, y: 0, width: 80, height: 12 } },
          ...({ ink: { node: at(made, lost) } } as Loss),
        });
    expect(holds(cut(false), low, more)).toBe(true);
    expect(holds(cut(false, 'x', 6), low, more)).toBe(false);
    expect(holds(cut(false), low, text, more)).toBe(false);
    expect(holds(cut(false), x(), more)).toBe(false);
    // An arrow over slides begins above their middle.
    expect(holds(cut(false), low, { ...more, box: [0, 4, 20, 32] })).toBe(false);
    // A link to the whole of it follows lines that are whole.
    const link: Node = { ...more, tag: 'a' };
    expect(holds(cut(true), low, link)).toBe(true);
    expect(holds(cut(false), low, link)).toBe(false);
    // One line is no excerpt, and a field that is gone is none of it.
    expect(holds(cut(true), { ...low, box: [0, 0, 80, 24] }, link)).toBe(false);
    const field: Node = { tag: 'input', id: 'field', box: [0, 60, 80, 20], flags: FLAG_CONTROL | FLAG_FIELD };
    expect(holds(cut(true, 'field'), { ...low, children: [field] }, link)).toBe(false);
    // The label of a hidden box opens the rest; one with its own box is an answer, and a field is one to be written.
    const label: Node = { ...more, tag: 'label', flags: 0 };
    const box: Node = { tag: 'input', box: [0, 40, 12, 12], flags: FLAG_CONTROL };
    expect(holds(cut(false), low, label)).toBe(true);
    expect(holds(cut(false), low, { ...label, children: [box] })).toBe(false);
    expect(holds(cut(false), low, { ...box, flags: FLAG_CONTROL | FLAG_FIELD })).toBe(false);
  });
  test('faded out at its end by a clear gradient; a shade over all of it is not a fade', () => {
    const gradient = 'linear-gradient(rgba(255, 255, 255, 0), rgb(255, 255, 255))';
    const fade = (box: Node['box']): Node => ({
      tag: 'i',
      box,
      style: { position: 'absolute', 'background-image': gradient },
    });
    const fades = (axis: 'x' | 'y', node: Node) =>
      holds((scene, cutter) => isFaded(scene, { cutter, axis } as Loss), node);
    expect(fades('y', x({ children: [fade([0, 20, 100, 20])] }))).toBe(true);
    expect(fades('y', x({ children: [fade([0, 0, 100, 40])] }))).toBe(false);
    const masked = x({ style: { 'mask-image': 'linear-gradient(rgb(0, 0, 0), rgba(0, 0, 0, 0))' } });
    expect(fades('y', masked)).toBe(true);
    // What fades out below says nothing of what is cut off at the side.
    expect(fades('x', x({ children: [fade([0, 20, 100, 20])] }))).toBe(false);
    expect(fades('x', masked)).toBe(false);
  });
});

describe('what lies over the page on purpose', () => {
  const fixed = { ...WHITE, position: 'fixed' };
  test('top layer, backdrop, notice', () => {
    const dialog: Node = { tag: 'dialog', box: [0, 0, 9, 9], flags: FLAG_TOP_LAYER, children: [x()] };
    expect(holds((scene, i) => isLaidOverPage(scene, i, scene.view.root), dialog)).toBe(true);
    expect(holds((scene, i) => isLaidOverPage(scene, i, i), dialog)).toBe(false);
    const bare = (height: number) => x({ box: [0, 0, 400, height], style: fixed });
    const panel: Node = {
      tag: 'div',
      box: [50, 200, 300, 200],
      style: fixed,
      flags: FLAG_TEXT,
      lines: [line(60, 210, 90)],
    };
    expect(holds(fillsScreen, bare(800), panel)).toBe(true);
    expect(holds(fillsScreen, bare(60), panel)).toBe(false);
    // Nothing lies on it: nobody gets past it.
    expect(holds(fillsScreen, panel, bare(800))).toBe(false);
    const words = { flags: FLAG_TEXT, lines: [line(0, 0, 90)] };
    const button = { tag: 'button', box: [0, 40, 90, 30] as const, flags: FLAG_CONTROL };
    const wall = (children: Node[]) => x({ box: [0, 0, 400, 800], style: fixed, children });
    expect(holds(fillsScreen, wall([{ tag: 'p', box: [0, 0, 90, 20], ...words }]))).toBe(false);
    expect(holds(fillsScreen, wall([{ tag: 'p', box: [0, 0, 90, 20], ...words }, button]))).toBe(true);
    // What stands before a menu over the whole screen, a button that closes it, lies over the page behind it.
    const menu = x({ id: 'menu', box: [0, 0, 400, 800], style: fixed, children: [button] });
    const close: Node = { tag: 'button', id: 'close', box: [340, 10, 50, 30], style: fixed };
    const meets = (i: string, other: string) =>
      ((made) => isLaidOverPage(made, at(made, i), at(made, other)))(scene(x(), menu, close));
    expect([meets('close', 'x'), meets('menu', 'x'), meets('close', 'menu')]).toEqual([true, true, false]);
    expect(holds(isDismissible, x({ class: 'cookie-bar', style: fixed, children: [button] }))).toBe(true);
    // Nothing in it sends it away.
    expect(holds(isDismissible, x({ class: 'cookie-bar', style: fixed }))).toBe(false);
    // It lies over nothing.
    expect(holds(isDismissible, x({ class: 'cookie-bar' }))).toBe(false);
    expect(holds(isDismissible, x({ flags: FLAG_OVERLAY }))).toBe(true);
    expect(holds(isDismissible, x({ class: 'call-bar' }))).toBe(false);
  });
  test('what stands in a notice, a wall or a menu is not under it', () => {
    const button = { tag: 'button', box: [0, 40, 90, 30] as const, flags: FLAG_CONTROL };
    const notice = x({ class: 'cookie-bar', style: fixed, children: [button] });
    const wall = x({ box: [0, 0, 400, 800], style: fixed, children: [button] });
    const menu: Node = {
      tag: 'div',
      box: [0, 0, 100, 40],
      style: { position: 'relative' },
      children: [button, x({ box: [0, 70, 200, 90], style: { position: 'absolute' } })],
    };
    for (const [is, node] of [
      [isDismissible, notice],
      [fillsScreen, wall],
      [hangsFromControl, menu],
    ] as const) {
      expect(holds((scene, i) => is(scene, i), node)).toBe(true);
      expect(holds((scene, i) => is(scene, i, i), node)).toBe(false);
    }
  });
  test('a menu hangs from its button, a panel inside a box without one does not', () => {
    const button: Node = { tag: 'button', box: [0, 0, 100, 40], flags: FLAG_CONTROL };
    const holder = (...children: Node[]): Node => ({
      tag: 'div',
      box: [0, 0, 100, 40],
      style: { position: 'relative' },
      children,
    });
    const menu = x({ box: [0, 40, 200, 90], style: { position: 'absolute' } });
    expect(holds(hangsFromControl, holder(button, menu))).toBe(true);
    expect(holds(hangsFromControl, holder(menu))).toBe(false);
    expect(holds(hangsFromControl, holder(button, { ...menu, box: [0, 10, 200, 90] }))).toBe(false);
  });
  test('a bar at the top edge stays there; one that ends with its short parent does not', () => {
    const atTop = (made: Scene, i: number) => isAtTopEdge(made, i, mainPortOf(made.view)!);
    const sticky = { ...WHITE, position: 'sticky', top: '0px' };
    expect(holds(atTop, x({ box: [0, 0, 400, 60], style: sticky }))).toBe(true);
    expect(holds(atTop, x({ box: [0, 0, 400, 60], style: { ...fixed, top: '0px' } }))).toBe(true);
    expect(holds(atTop, x({ box: [0, 0, 90, 60], style: sticky }))).toBe(false);
    const short: Node = {
      tag: 'header',
      box: [0, 0, 400, 60],
      children: [x({ box: [0, 0, 400, 60], style: sticky })],
    };
    expect(holds(atTop, short)).toBe(false);
  });
});

describe('stacks', () => {
  const card = (id: string, box: Node['box'], more: Partial<Node> = {}): Node => ({
    tag: 'div',
    id,
    box,
    style: WHITE,
    ...more,
  });
  const pair = (predicate: typeof areShingled, ...cards: Node[]) => {
    const made = scene(...cards);
    return predicate(made, at(made, 'a'), at(made, 'b'));
  };
  test('slides in the same place are alternatives; neighbours are not', () => {
    const out = { style: { ...WHITE, position: 'absolute' } };
    expect(pair(areAlternatives, card('a', [0, 0, 200, 90]), card('b', [0, 0, 200, 90], out))).toBe(true);
    expect(pair(areAlternatives, card('a', [0, 0, 200, 90]), card('b', [0, 50, 200, 90], out))).toBe(false);
  });
  test('what was put on one of several rows is no alternative to it', () => {
    const row = (y: number, more: Partial<Node> = {}): Node => ({
      tag: 'div',
      class: 'row',
      box: [0, y, 200, 30],
      style: WHITE,
      ...more,
    });
    const first = row(0, { children: [{ tag: 'b', id: 'a', box: [4, 4, 80, 20], lines: [line(4, 6, 80)] }] });
    const head = card('b', [0, 0, 200, 30], { style: { ...WHITE, position: 'absolute' } });
    const on = (...rows: Node[]) =>
      pair(areAlternatives, { tag: 'section', box: [0, 0, 200, 60], children: [head, ...rows] });
    expect(on(first)).toBe(true);
    expect(on(first, row(30))).toBe(false);
    expect(on(first, row(0))).toBe(true);
  });
  test('what lies on another part in the flow is an alternative where something to press leads to it', () => {
    const parts = [card('a', [0, 0, 200, 90]), card('b', [0, 0, 200, 90])];
    const next: Node = { tag: 'button', box: [0, 100, 60, 30], flags: FLAG_CONTROL };
    const cell: Node = { tag: 'div', box: [0, 0, 200, 90], children: parts };
    const within = (...more: Node[]) =>
      pair(areAlternatives, { tag: 'section', box: [0, 0, 200, 140], children: [cell, ...more] });
    expect(within()).toBe(false);
    expect(within(next)).toBe(true);
  });
  test('the first letters of a name stand in for the picture that fills their box, words for no picture', () => {
    const face = (words: string, width = 48) => {
      const made = scene({
        tag: 'figure',
        box: [0, 0, 48, 48],
        children: [
          { tag: 'b', id: 'a', box: [10, 14, 28, 20], lines: [line(10, 14, 28, words)] },
          { tag: 'img', id: 'b', box: [0, 0, width, 48], flags: FLAG_PICTURE | FLAG_REPLACED },
        ],
      });
      const letters = made.inks.find((ink) => ink.node === at(made, 'a') && ink.kind === 'text')!;
      return isStandIn(made, letters, at(made, 'b'));
    };
    expect(face('PQ')).toBe(true);
    expect(face('PQ', 30)).toBe(false);
    expect(face('Heron')).toBe(false);
  });
  test('shingled avatars lie over their neighbour, but not over its words', () => {
    const face = (id: string, px: number, words = false): Node => ({
      tag: 'li',
      box: [px, 0, 48, 48],
      margin: [0, 0, 0, px === 0 ? 0 : -16],
      children: [card(id, [px, 0, 48, 48], words ? { lines: [line(px, 10, 46)] } : {})],
    });
    expect(pair(areShingled, face('a', 0), face('b', 32))).toBe(true);
    expect(pair(areShingled, face('a', 0, true), face('b', 32))).toBe(false);
    // Pulled sideways and beside one another, as rows with gutters are.
    expect(pair(areShingled, face('a', 0), face('b', 60))).toBe(false);
  });
});

describe('losses', () => {
  const words = (left: number): Node => ({ tag: 'p', box: [left, 0, 90, 20], lines: [line(left, 0, 80)] });
  const lost = (cutter: Partial<Node>, ...children: Node[]) =>
    lossesOf(scene(x({ box: [0, 0, 100, 40], style: HIDDEN, ...cutter, children }))).length;
  test('slides beside a window: by name, by a moved track, by buttons beside it', () => {
    expect(lost({}, words(120))).toBe(1);
    expect(lost({ class: 'boat-carousel' }, words(120))).toBe(0);
    const arrow = (position: string): Node => ({
      tag: 'button',
      box: [88, 5, 24, 30],
      flags: FLAG_CONTROL,
      style: { ...WHITE, display: 'inline-block', position },
    });
    const window = { class: 'boat-carousel', style: { ...HIDDEN, position: 'relative' } };
    expect(lost(window, arrow('absolute'))).toBe(1);
    // What is cut through has to be moved by something, whatever it is called.
    const button: Node = { tag: 'button', box: [4, 22, 20, 16], flags: FLAG_CONTROL };
    const row = (willChange: string): Node => ({
      tag: 'div',
      box: [0, 0, 300, 20],
      style: { 'will-change': willChange },
      children: [words(60)],
    });
    expect(lost(window, row('auto'))).toBe(1);
    expect(lost(window, row('transform'))).toBe(0);
    expect(lost(window, row('auto'), button)).toBe(0);
    expect(lost({}, row('auto'), button)).toBe(1);
    const track: Node = {
      tag: 'div',
      box: [0, 0, 300, 20],
      style: { transform: 'matrix(1, 0, 0, 1, -5, 0)' },
      children: [words(120)],
    };
    expect(lost({}, track)).toBe(0);
  });
  test('what an endless animation moves by is meant where it is longer than its window, and one that ends is not', () => {
    const line = (count: string): Node => ({
      tag: 'div',
      box: [0, 0, 300, 20],
      style: { 'animation-iteration-count': count },
      children: [words(120)],
    });
    expect(lost({}, line('infinite'))).toBe(0);
    expect(lost({}, line('1'))).toBe(1);
    expect(lost({}, { ...line('infinite'), box: [0, 0, 50, 20] })).toBe(1);
  });
  test('what waits wholly outside by position is meant, what sticks out is lost', () => {
    const put = (left: number): Node => ({ ...words(left), style: { position: 'absolute' } });
    expect(lost({ style: { ...HIDDEN, position: 'relative' } }, put(120))).toBe(0);
    expect(lost({ style: { ...HIDDEN, position: 'relative' } }, put(60))).toBe(1);
  });
});

test('a row that is moved in a window is a carousel where moving it shows something else', () => {
  const lost = (...parts: readonly Partial<Node>[]) => {
    const made = scene({
      tag: 'div',
      box: [0, 0, 300, 100],
      style: HIDDEN,
      children: [
        {
          tag: 'div',
          box: [-20, 0, 200, 100],
          style: { transform: 'matrix(1, 0, 0, 1, -20, 0)' },
          children: parts.map((part) => ({ tag: 'p', box: [-20, 0, 200, 40], ...part })),
        },
      ],
    });
    return lossesOf(made).length;
  };
  const words = { box: [-20, 0, 200, 20], lines: [line(-10, 0, 80)] } satisfies Partial<Node>;
  expect(lost(words)).toBe(1);
  expect(lost(words, { box: [180, 0, 200, 40] })).toBe(0);
});
