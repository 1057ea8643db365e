import { FLAG_PICTURE_CONTENT, KIND_ELEMENT } from '../../src/core/layout/snapshot.js';
import type { SnapshotView } from '../../src/core/layout/view.js';
import { keptLayout } from '../support/kept-layout.js';
import { temporaryFolder } from '../support/program.js';

const STYLE = `<style>p { margin: 0; height: 20px; font: 16px/20px Arial } .f { display: flex; justify-content: end }
.c::before, .f.c::before { content: attr(data-words) }
#dotted::before { content: ""; padding: 4px 6px; background: #c00 }</style>`;
/** Generated words, and the same words as text 20 px below them. */
const pair = (words: string, classes = '') =>
  `<p class="c ${classes}" data-words="${words}"></p><p class="${classes}">${words}</p>`;
const PAGE = `<!doctype html><meta name="viewport" content="width=device-width"><title>Generated</title>${STYLE}
<body style="height: 3000px">${pair('in line')}${pair('in a row', 'f')}<details>${pair('in closed details')}</details>
<p id="dotted">Boats</p><div id="host"><div>${pair('in a slot')}</div></div>
<iframe title="inner" style="border: 3px solid; padding: 5px" srcdoc='${STYLE}<body style="height: 900px">${pair('in a frame')}<script>scrollTo(0, 5)</script>'></iframe>
<script>host.attachShadow({ mode: 'open' }).innerHTML = ${JSON.stringify(`${STYLE}${pair('in a shadow')}<slot></slot>`)}</script>`;

let temp: Awaited<ReturnType<typeof temporaryFolder>>;

beforeAll(async () => {
  temp = await temporaryFolder();
});
afterAll(() => temp.dispose());

/** Boxes of the lines with some words: of those that are generated, and of those that are text. */
function boxesOf(view: SnapshotView, words: string) {
  const { count, node } = view.snapshot.lines;
  const lines = Array.from({ length: count }, (_, line) => line).filter(
    (line) => view.lineText(line) === words,
  );
  const isText = (line: number) => view.snapshot.nodes.kind[node[line]!] === KIND_ELEMENT;
  const boxes = (text: boolean) =>
    lines.filter((line) => isText(line) === text).map((line) => view.lineBox(line));
  return { generated: boxes(false), text: boxes(true) };
}

test('generated words lie where the same words lie as text, in whatever tree', async () => {
  const view = await keptLayout(temp.path, PAGE, '500x400@2');
  for (const words of ['in line', 'in a row', 'in a slot', 'in a shadow', 'in a frame']) {
    const { generated, text } = boxesOf(view, words);
    expect([words, generated.length, text.length]).toEqual([words, 1, 1]);
    const [made, written] = [generated[0]!, text[0]!];
    expect(made.x).toBeCloseTo(written.x, 0);
    expect(made.width).toBeCloseTo(written.width, 0);
    expect(written.y - made.y).toBeCloseTo(20, 0);
  }
  expect(boxesOf(view, 'in closed details').generated).toEqual([]);
  // Without words, but with padding: 12 px wide, before the words of its paragraph.
  const dotted = Array.from({ length: view.count }, (_, i) => i).find((i) => view.id(i) === 'dotted')!;
  const dot = view.childrenOf(dotted).find((i) => view.tag(i) === '::before')!;
  expect(view.box(dot)).toMatchObject({ x: view.box(dotted).x, width: 12 });
});

test('a sign that was placed fills the content box of its pseudo-element; a picture that one shows is known as one', async () => {
  const drawing = `url("data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' width='20' height='14'/%3E")`;
  const style = `p { position: relative; margin: 0 } p::after { position: absolute; left: 30px; top: 5px; padding: 2px 3px }
#tick::after { content: "✓"; width: 12px; height: 18px } #inline::after { content: "✓"; position: static; padding: 0 }
#empty::after { content: " "; width: 9px; height: 9px } #drawn::after { content: ${drawing}; padding: 0; line-height: 0 }`;
  const page = `<!doctype html><meta name="viewport" content="width=device-width"><title>Signs</title><style>${style}</style>
<p id="tick">Tea</p><p id="inline">Tea</p><p id="empty">Tea</p><p id="drawn">Tea</p>`;
  const view = await keptLayout(temp.path, page, '500x400@2');
  const after = (id: string) => {
    const at = Array.from({ length: view.count }, (_, i) => i).find((i) => view.id(i) === id)!;
    return { at, sign: view.childrenOf(at).find((i) => view.tag(i) === '::after')! };
  };
  const { at, sign } = after('tick');
  const [line] = view.linesOf(sign);
  const { x, y } = view.box(at);
  expect(view.lineText(line!)).toBe('✓');
  expect(view.lineBox(line!)).toEqual({ x: x + 33, y: y + 7, width: 12, height: 18 });
  for (const id of ['inline', 'empty']) expect(view.linesOf(after(id).sign)).toEqual([]);
  expect(view.has(after('drawn').sign, FLAG_PICTURE_CONTENT)).toBe(true);
  expect(view.box(after('drawn').sign)).toMatchObject({ width: 20, height: 14 });
  expect(view.has(sign, FLAG_PICTURE_CONTENT)).toBe(false);
});
