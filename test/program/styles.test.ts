import type { SnapshotView } from '../../src/core/layout/view.js';
import { keptLayout } from '../support/kept-layout.js';
import { temporaryFolder } from '../support/program.js';

const PAGE = `<!doctype html><meta name="viewport" content="width=device-width"><title>Styles</title><style>
body { font: 16px/24px Arial; color: rgb(1, 2, 3); margin: 0 }
#inline-size { inline-size: 120px } #max { max-block-size: 30px } #var { --m: 7px; margin: var(--m) }
.big { font-size: 20px } .loud { line-height: 2 }
.outer { & .nested { opacity: 0.5 } }
@scope (.scope) { :scope { padding: 9px } .in { box-shadow: 0 0 1px red } }
@keyframes rise { to { transform: translateY(-3px) } }
#risen { animation: rise 0.01s both }
@media (min-width: 300px) { .wide, .other { white-space: nowrap } }
</style><body>
<div id="inline-size">a</div><div id="max">b</div><div id="var">c</div>
<div class="big" id="big"><span id="in-big">d</span><div class="loud"><span id="in-loud">e</span></div></div>
<div class="outer"><p class="nested" id="nested">f</p></div>
<div class="scope" id="scoped"><span class="in" id="in-scope">g</span></div>
<div id="risen">h</div>
<div class="wide"><em id="in-wide">j</em></div>
<div style="text-indent: 5px"><p id="in-style">k</p></div>
<div style="width: 200px"><div id="wide" style="width: 300px; margin: 1px auto">o</div><div id="pulled" style="margin: 0 -9px">p</div></div>
<div contenteditable="true" id="edit">l</div><div dir="rtl"><p id="in-rtl">m</p></div>
<div id="host"></div><script>host.attachShadow({ mode: 'open' }).innerHTML =
'<style>:host { visibility: visible; margin: 4px } i { min-width: 11px; display: inline-block }</style><i id="shadowed">n</i>'</script>`;

/** Element, property, and what the browser computes of it. */
const TRUTH: readonly (readonly [string, Parameters<SnapshotView['style']>[1], string])[] = [
  ['inline-size', 'width', '120px'],
  ['inline-size', 'max-width', 'none'],
  ['inline-size', 'color', 'rgb(1, 2, 3)'],
  ['max', 'max-height', '30px'],
  ['in-big', 'font-size', '20px'],
  ['big', 'font-size', '20px'],
  ['in-big', 'line-height', '24px'],
  ['in-loud', 'line-height', '40px'],
  ['nested', 'opacity', '0.5'],
  ['scoped', 'opacity', '1'],
  ['in-scope', 'box-shadow', 'rgb(255, 0, 0) 0px 0px 1px 0px'],
  ['risen', 'transform', 'matrix(1, 0, 0, 1, 0, -3)'],
  ['in-wide', 'white-space', 'nowrap'],
  ['in-big', 'white-space', 'normal'],
  ['in-style', 'text-indent', '5px'],
  ['edit', 'overflow-wrap', 'break-word'],
  ['in-rtl', 'direction', 'rtl'],
  ['in-wide', 'direction', 'ltr'],
  ['shadowed', 'min-width', '11px'],
];

let temp: Awaited<ReturnType<typeof temporaryFolder>>;

beforeAll(async () => {
  temp = await temporaryFolder();
});
afterAll(() => temp.dispose());

// What a frame's sheets do is not followed, nor then what the page's own do.
test.each([
  ['', PAGE],
  [', beside a frame', `${PAGE}<iframe srcdoc="q"></iframe>`],
])('styles are recorded as the browser computes them, whichever way they are set%s', async (_, page) => {
  const view = await keptLayout(temp.path, page, '500x400');
  const nodes = Array.from({ length: view.count }, (_, i) => i);
  const at = (id: string) => nodes.find((i) => view.id(i) === id)!;
  const found = TRUTH.map(([id, property]) => [id, property, view.style(at(id), property)]);
  expect(found).toEqual(TRUTH);
  expect(view.margins(at('var'))).toEqual([7, 7, 7, 7]);
  expect(view.margins(at('host'))).toEqual([4, 4, 4, 4]);
  expect(view.margins(at('max'))).toEqual([0, 0, 0, 0]);
  // What is left for an automatic margin beside what is too wide pulls nothing.
  expect(view.margins(at('wide'))).toEqual([1, 0, 1, 0]);
  expect(view.margins(at('pulled'))).toEqual([0, -9, 0, -9]);
});
