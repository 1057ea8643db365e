import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Manifest } from '../../src/run/manifest.js';
import { isoptic, manifestOf, temporaryFolder } from '../support/program.js';

/** A list whose numbers stand left of the page; what is said of the first of them, or null where nothing is. */
const LISTS: readonly (readonly [name: string, list: string, first: string | null])[] = [
  ['decimal', '<ol><li>Choose a boat</li><li>Say who travels</li></ol>', '1.'],
  ['an item with a value', '<ol><li value="42">Choose a boat</li></ol>', '42.'],
  ['from a number on', '<ol start="98"><li>Choose a boat</li></ol>', '98.'],
  ['counted down', '<ol reversed><li>Choose a boat</li><li>Say who travels</li></ol>', '2.'],
  ['letters', '<ol start="28" style="list-style-type: lower-alpha"><li>Choose a boat</li></ol>', 'ab.'],
  ['Roman', '<ol start="14" style="list-style-type: upper-roman"><li>Choose a boat</li></ol>', 'XIV.'],
  ['in a paragraph', '<ol><li><p>Choose a boat</p></li></ol>', '1.'],
  ['with room', '<ol style="padding-left: 40px"><li>Choose a boat</li></ol>', null],
  ['inside', '<ol style="list-style-position: inside"><li>Choose a boat</li></ol>', null],
  ['none', '<ol style="list-style: none"><li>Choose a boat</li></ol>', null],
  ['bullets, which nobody misses there', '<ul style="padding: 0"><li>Choose a boat</li></ul>', null],
];

/** A list in a panel of 200 px, with bullets or numbers, and whether one of them is told. */
const BULLETS: readonly (readonly [name: string, list: string, rule: string | null])[] = [
  ['bullets out of their panel', '<div class="panel"><ul><li>Choose a boat</li></ul></div>', 'box-overflow'],
  ['in it', '<div class="panel"><ul style="padding-left: 40px"><li>Choose a boat</li></ul></div>', null],
  [
    'from right to left',
    '<div class="panel" dir="rtl"><ul><li>Choose a boat</li></ul></div>',
    'box-overflow',
  ],
  [
    'numbers from right to left',
    '<div class="panel" dir="rtl"><ol><li>Choose a boat</li></ol></div>',
    'box-overflow',
  ],
  [
    'numbers from right to left with room',
    '<div class="panel" dir="rtl"><ol style="padding-right: 40px"><li>Choose a boat</li></ol></div>',
    null,
  ],
  ['inside', '<div class="panel"><ul style="list-style-position: inside"><li>Boat</li></ul></div>', null],
  [
    'with no content',
    '<style>li::marker { content: "" }</style><div class="panel"><ul><li>Boat</li></ul></div>',
    null,
  ],
  [
    'pushed in by a picture that floats, onto it',
    '<img src="pier.svg" width="120" height="90" style="float: left"><ul style="padding-left: 20px"><li>Boat</li></ul>',
    'covered',
  ],
  [
    'beside that picture',
    '<img src="pier.svg" width="120" height="90" style="float: left"><ul style="padding-left: 20px; overflow: hidden"><li>Boat</li></ul>',
    null,
  ],
];

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let told: Manifest['findings'][];

beforeAll(async () => {
  temp = await temporaryFolder();
  await writeFile(
    join(temp.path, 'pier.svg'),
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 4 3"><rect width="4" height="3" fill="teal"/></svg>',
  );
  const lists = [...LISTS, ...BULLETS].map(([, list]) => list);
  const files = lists.map((_, i) => `list-${i}.html`);
  for (const [i, list] of lists.entries())
    await writeFile(
      join(temp.path, files[i]!),
      `<!doctype html><meta name="viewport" content="width=device-width"><title>List</title>
<style>body { margin: 0; font: 16px/24px Arial, sans-serif } ol, ul { padding: 0 } .panel { margin: 40px; width: 200px; background: #cde }</style>
<p>Before the list.</p>${list}`,
    );
  const args = ['check', ...files, '--at', '390x844', '--shots', 'none', '--json', '--fail-on', 'never'];
  const { findings } = manifestOf(await isoptic(args, { cwd: temp.path }));
  told = files.map((_, i) =>
    findings.filter(({ pages, severity }) => pages.includes(`list-${i}`) && severity !== 'notice'),
  );
});
afterAll(() => temp.dispose());

test.each(LISTS.map(([name, , first], i) => [name, i, first] as const))('%s', (_, i, first) => {
  const found = told[i]!.find(({ rule }) => rule === 'unreachable');
  expect(found ? (/“([^”]*)”/.exec(found.message)?.[1] ?? '') : null).toBe(first);
});

test.each(BULLETS.map(([name, , rule], i) => [name, LISTS.length + i, rule] as const))('%s', (_, i, rule) => {
  expect(told[i]!.map((found) => `${found.rule} ${found.selector}`)).toEqual(
    rule === null ? [] : [expect.stringMatching(new RegExp(`^${rule} .*[ou]l$`))],
  );
});
