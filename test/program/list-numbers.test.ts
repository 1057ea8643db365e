import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
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
  ['bullets, which can be missed', '<ul style="padding: 0"><li>Choose a boat</li></ul>', null],
];

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
let told: (string | null)[];

beforeAll(async () => {
  temp = await temporaryFolder();
  const files = LISTS.map((_, i) => `list-${i}.html`);
  for (const [i, [, list]] of LISTS.entries())
    await writeFile(
      join(temp.path, files[i]!),
      `<!doctype html><meta name="viewport" content="width=device-width"><title>List</title>
<style>body { margin: 0; font: 16px/24px Arial, sans-serif } ol { padding: 0 }</style><p>Before the list.</p>${list}`,
    );
  const args = ['check', ...files, '--at', '390x844', '--shots', 'none', '--json', '--fail-on', 'never'];
  const { findings } = manifestOf(await isoptic(args, { cwd: temp.path }));
  told = files.map((_, i) => {
    const found = findings.find(({ rule, pages }) => rule === 'unreachable' && pages.includes(`list-${i}`));
    return found ? (/“([^”]*)”/.exec(found.message)?.[1] ?? '') : null;
  });
});
afterAll(() => temp.dispose());

test.each(LISTS.map(([name, , first], i) => [name, i, first] as const))('%s', (_, i, first) => {
  expect(told[i]).toBe(first);
});
