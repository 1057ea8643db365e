import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { lettersOf } from '../../src/core/layout/text-ink.js';
import type { SnapshotView } from '../../src/core/layout/view.js';
import { layoutPath, readLayout } from '../../src/run/layout-file.js';
import { isoptic, manifestOf, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;

beforeAll(async () => {
  temp = await temporaryFolder();
});
afterAll(() => temp.dispose());

const HEAD =
  '<!doctype html><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Written</title>';

let runs = 0;
async function check(body: string) {
  const folder = join(temp.path, `case-${++runs}`);
  const path = `${folder}.html`;
  await writeFile(path, HEAD + body);
  const outcome = await isoptic([
    'check',
    path,
    '--at',
    '400x700+mobile',
    '--shots',
    'none',
    '--json',
    '--out',
    folder,
  ]);
  const manifest = manifestOf(outcome);
  const { view } = await readLayout(
    join(folder, layoutPath(manifest.pages[0]!.id, manifest.profiles[0]!.name)),
  );
  return { findings: manifest.findings, view };
}

const lineOf = (view: SnapshotView, text: string) =>
  Array.from({ length: view.snapshot.lines.count }, (_, line) => line).find(
    (line) => view.lineText(line) === text,
  )!;

test('the label of a submit field is cut off by it; what stands in a field to type in is scrolled', async () => {
  const { findings } = await check(
    '<input id="go" type="submit" style="width:90px" value="Reserve a place on board"><input id="to" style="width:90px" value="Wickham Quay, north landing">',
  );
  expect(findings.map(({ rule, selector }) => `${rule} ${selector}`)).toEqual(['control-clipped #go']);
});

test('what a list has chosen and the pattern of a date field are words that something can lie on', async () => {
  const note = (id: string, left: number) =>
    `<b id="${id}" style="position:absolute;left:${left}px;top:10px;font:16px/20px Arial">daily</b>`;
  const row = (field: string, id: string, left: number) =>
    `<p style="position:relative;height:40px">${field}${note(id, left)}</p>`;
  const select =
    '<select aria-label="a" style="width:300px;height:40px"><option>Far Isle, north landing</option></select>';
  const date = '<input type="date" aria-label="b" style="width:300px;height:40px">';
  const { findings } = await check(
    row(select, 'on', 60) + row(date, 'over', 30) + row(select, 'beside', 220) + row(date, 'right', 200),
  );
  expect(findings.filter(({ family }) => family === 'overlap').map(({ selector }) => selector)).toEqual([
    '#on',
    '#over',
  ]);
});

test('the space between words of two elements is of neither, so that a ground may reach into it', async () => {
  const marked = (px: number) =>
    check(
      `<style>mark { padding: 2px ${px}px; margin: 0 -${px}px } pre { margin: 0; font: 16px/20px monospace }</style>
<p>The <mark>boat</mark> leaves at dusk.</p><p><span>The</span></p><pre>  north landing</pre>`,
    );
  const { findings, view } = await marked(4);
  expect(findings).toEqual([]);
  const lines = Array.from({ length: view.snapshot.lines.count }, (_, line) => line);
  const widths = lines
    .filter((line) => view.lineText(line) === 'The')
    .map((line) => view.lineBox(line).width);
  expect(widths[0]).toBeCloseTo(widths[1]!, 1);
  expect(view.lineBox(lineOf(view, 'north landing')).x).toBeGreaterThan(16);
  expect((await marked(12)).findings.map(({ rule, selector }) => `${rule} ${selector}`)).toEqual([
    'covered p:nth-of-type(1) > mark',
  ]);
});

test('letters are measured in their own face, also where the box of a line is twice as high as they are', async () => {
  const { view } = await check(
    '<p style="font:20px/2 Arial">Boats</p><p lang="ar" dir="rtl" style="font:20px/2 \'Noto Sans Arabic\'">قارب الصباح</p>',
  );
  const latin = lineOf(view, 'Boats');
  const face = view.lineFace(latin)!;
  // Capitals of 0.716 em and a box of 0.905 + 0.212 em, as the metrics of the face say.
  expect(face.rise).toBeGreaterThan(0.69);
  expect(face.rise).toBeLessThan(0.75);
  expect(face.baseline).toBeCloseTo(0.81, 1);
  const arabic = lineOf(view, 'قارب الصباح');
  const box = view.lineBox(arabic);
  const letters = lettersOf(view, arabic);
  expect(box.height).toBeGreaterThan(28);
  expect(letters.height).toBeLessThan(box.height);
  expect(letters.height).toBeLessThan(30);
});
