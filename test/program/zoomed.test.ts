import type { NodeIndex, SnapshotView } from '../../src/core/layout/view.js';
import { keptLayout } from '../support/kept-layout.js';
import { temporaryFolder } from '../support/program.js';

/** A part that scrolls, with a sign of the style sheet's on it, all of its lengths by a factor. */
const part = (id: string, by: number, zoom: number) => {
  const px = (length: number) => `${by * length}px`;
  return `<style>#${id} { zoom: ${zoom}; width: ${px(100)}; height: ${px(60)}; padding: ${px(10)}; border: ${px(2)} solid; overflow: auto;
    position: relative; font: ${px(20)}/${px(24)} Arial; transform: translate(${px(10)}, 0) }
  #${id} p { margin: ${px(4)} 0 0; width: ${px(200)}; height: ${px(90)} }
  #${id}::after { content: "▼"; position: absolute; left: ${px(30)}; top: ${px(12)}; width: ${px(16)}; height: ${px(16)} }</style>
  <div id="${id}"><p>Boats</p></div>`;
};

let temp: Awaited<ReturnType<typeof temporaryFolder>>;

beforeAll(async () => {
  temp = await temporaryFolder();
});
afterAll(() => temp.dispose());

/** What is told of a part, px of the page, from its own top left. */
function told(view: SnapshotView, id: string) {
  const nodes = Array.from({ length: view.count }, (_, i) => i);
  const at = nodes.find((i) => view.id(i) === id)!;
  const { x, y } = view.box(at);
  const box = (i: NodeIndex) => {
    const { x: left, y: top, width, height } = view.box(i);
    return [left - x, top - y, width, height];
  };
  const sign = view.childrenOf(at).find((i) => view.tag(i) === '::after')!;
  const words = view.childrenOf(at).find((i) => view.tag(i) === 'p')!;
  const transform = view.style(at, 'transform');
  return {
    boxes: [at, words, sign].map(box),
    inner: view.contentBox(at).width,
    margins: view.margins(words),
    scroll: view.scrollSizes(at),
    type: view.style(words, 'font-size'),
    transform,
  };
}

test('lengths of a part that is zoomed are told in px of the page', async () => {
  const page = `<!doctype html><meta name="viewport" content="width=device-width"><title>Zoomed</title>
    <body style="margin: 0">${part('zoomed', 1, 1.5)}${part('plain', 1.5, 1)}`;
  const view = await keptLayout(temp.path, page, '500x400');
  const zoomed = told(view, 'zoomed');
  expect(zoomed).toEqual(told(view, 'plain'));
  expect(zoomed.boxes[2]).toEqual([48, 21, 24, 24]);
  expect(zoomed.transform).toBe('matrix(1, 0, 0, 1, 15, 0)');
});

test.each([
  ['the transform of what holds it', 'transform: scale(1.5)', 'transform: none'],
  ['the scale of what holds it', 'scale: 1.5', 'transform: none'],
  ['its own transform', '', 'transform: scale(1.5)'],
  ['its own scale and that of what holds it', 'scale: 2', 'transform: none; scale: 0.75'],
])('lengths of a part that is drawn larger by %s are told in px of the page', async (_, around, own) => {
  // A scroll bar is drawn larger, too.
  const page = `<!doctype html><meta name="viewport" content="width=device-width"><title>Larger</title>
    <style>#larger[id], #plain[id] { overflow: hidden } #larger[id] { transform-origin: 0 0; ${own} }</style>
    <body style="margin: 0">${part('plain', 1.5, 1)}<div style="${around}; transform-origin: 0 0">${part('larger', 1, 1)}</div>`;
  const view = await keptLayout(temp.path, page, '700x600');
  const { transform: drawn, ...larger } = told(view, 'larger');
  const { transform: moved, ...plain } = told(view, 'plain');
  expect(larger).toEqual(plain);
  expect(drawn).not.toBe(moved);
});
