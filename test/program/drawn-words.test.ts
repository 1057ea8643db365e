import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { isoptic, manifestOf, temporaryFolder } from '../support/program.js';

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
beforeAll(async () => {
  temp = await temporaryFolder();
});
afterAll(() => temp.dispose());

let pages = 0;
/** Errors and warnings of a page that is one drawing among words, by rule and element. */
async function toldOf(drawing: string, style = ''): Promise<string[]> {
  const name = `drawing-${++pages}.html`;
  await writeFile(
    join(temp.path, name),
    `<!doctype html><html lang="en"><meta name="viewport" content="width=device-width"><title>Drawing</title>
<style>svg { display: block; font: 16px Arial } ${style}</style><h1>Passengers by isle</h1>
<svg viewBox="0 0 300 100" width="300" height="100">${drawing}</svg><p>Counted at the quay, day by day.</p>`,
  );
  const args = ['check', name, '--at', '600x800', '--shots', 'none', '--json', '--out', `run-${pages}`];
  const { findings } = manifestOf(await isoptic(args, { cwd: temp.path }));
  return findings
    .filter(({ severity }) => severity !== 'notice')
    .map(({ rule, selector }) => `${rule} ${selector}`);
}

const ON_EACH_OTHER = '<text x="10" y="50">Wickham Quay</text><text x="70" y="52">Ember Rock and more</text>';

test('words of a drawing lie on one another, also in a group and in parts of a line', async () => {
  expect(await toldOf(ON_EACH_OTHER)).toEqual(['text-overlap svg > text:nth-of-type(2)']);
  expect(
    await toldOf(
      '<g transform="translate(20 0)"><text x="10" y="50">Wickham <tspan>Quay</tspan></text></g><text x="70" y="52">Ember Rock</text>',
    ),
  ).toEqual([expect.stringMatching(/^text-overlap .*text$/)]);
});

test('a drawing cuts its words, unless its overflow is visible', async () => {
  const long = '<text x="200" y="50">Wickham Quay, the oldest</text>';
  expect(await toldOf(long)).toEqual(['text-clipped svg > text']);
  expect(await toldOf(long, 'svg { overflow: visible }')).toEqual([]);
});

test.each([
  ['side by side', '<text x="10" y="50">Wickham</text><text x="120" y="50">Ember Rock</text>'],
  [
    'turned',
    '<text x="10" y="50" transform="rotate(-40 10 50)">Wickham Quay</text><text x="70" y="52">Ember Rock and more</text>',
  ],
  ['not painted', ON_EACH_OTHER.replace('<text x="10"', '<text fill="none" x="10"')],
  ['hidden', ON_EACH_OTHER.replace('<text x="10"', '<text visibility="hidden" x="10"')],
  ['faded out', `<g opacity="0">${ON_EACH_OTHER}</g>`],
  ['of a definition', `<defs>${ON_EACH_OTHER}</defs>`],
  [
    'cut by a shape of the drawing',
    `<clipPath id="c"><rect width="60" height="100"/></clipPath><g clip-path="url(#c)"><text x="10" y="50">Wickham Quay</text></g><text x="70" y="52">Ember Rock</text>`,
  ],
  [
    'drawn twice, as a rim and as letters',
    '<text x="10" y="50" stroke="#fff" stroke-width="4">Wickham Quay</text><text x="10" y="50">Wickham Quay</text>',
  ],
])('words that are %s are left alone', async (_, drawing) => {
  expect(await toldOf(drawing)).toEqual([]);
});
