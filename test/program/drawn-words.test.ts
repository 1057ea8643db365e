import { writeFile } from 'node:fs/promises';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { isoptic, manifestOf, temporaryFolder } from '../support/program.js';

const ON_EACH_OTHER = '<text x="10" y="50">Wickham Quay</text><text x="70" y="52">Ember Rock and more</text>';
const TOO_LONG = '<text x="200" y="50">Wickham Quay, the oldest</text>';

/** What a page draws, and what is told of it: the rule and the element. */
const DRAWINGS: Readonly<Record<string, { drawing: string; style?: string; told?: RegExp }>> = {
  'words on one another': { drawing: ON_EACH_OTHER, told: /^text-overlap svg > text:nth-of-type\(2\)$/ },
  'words on one another, in a group and in parts of a line': {
    drawing:
      '<g transform="translate(20 0)"><text x="10" y="50">Wickham <tspan>Quay</tspan></text></g><text x="70" y="52">Ember Rock</text>',
    told: /^text-overlap .*text$/,
  },
  'words that the drawing cuts': { drawing: TOO_LONG, told: /^text-clipped svg > text$/ },
  'words that it would cut if its overflow were not visible': {
    drawing: TOO_LONG,
    style: 'svg { overflow: visible }',
  },
  'words that are side by side': {
    drawing: '<text x="10" y="50">Wickham</text><text x="120" y="50">Ember Rock</text>',
  },
  'words that are turned': {
    drawing:
      '<text x="10" y="50" transform="rotate(-40 10 50)">Wickham Quay</text><text x="70" y="52">Ember Rock and more</text>',
  },
  'words that are not painted': {
    drawing: ON_EACH_OTHER.replace('<text x="10"', '<text fill="none" x="10"'),
  },
  'words that are hidden': {
    drawing: ON_EACH_OTHER.replace('<text x="10"', '<text visibility="hidden" x="10"'),
  },
  'words that are faded out': { drawing: `<g opacity="0">${ON_EACH_OTHER}</g>` },
  'words of a definition': { drawing: `<defs>${ON_EACH_OTHER}</defs>` },
  'words that are cut by a shape of the drawing': {
    drawing: `<clipPath id="c"><rect width="60" height="100"/></clipPath><g clip-path="url(#c)"><text x="10" y="50">Wickham Quay</text></g><text x="70" y="52">Ember Rock</text>`,
  },
  'a solid shape that is drawn over words': {
    drawing: '<text x="10" y="50">Wickham Quay</text><circle cx="60" cy="45" r="20" fill="#357"/>',
    told: /^covered svg > circle$/,
  },
  'a solid shape under words, a clear one over them, a line through them, and one beside them': {
    drawing:
      '<rect width="120" height="80" fill="#def"/><text x="10" y="50">Wickham Quay</text><rect width="300" height="100" fill="rgba(0, 0, 0, 0.1)"/><path d="M0 20 C 40 90 80 10 300 45" fill="none" stroke="#357"/><circle cx="160" cy="45" r="20" fill="#357"/>',
  },
  'words that are drawn twice, as a rim and as letters': {
    drawing:
      '<text x="10" y="50" stroke="#fff" stroke-width="4">Wickham Quay</text><text x="10" y="50">Wickham Quay</text>',
  },
};

let temp: Awaited<ReturnType<typeof temporaryFolder>>;
/** Errors and warnings of each drawing. */
let told: string[][];

beforeAll(async () => {
  temp = await temporaryFolder();
  const files = Object.keys(DRAWINGS).map((_, i) => `drawing-${i}.html`);
  for (const [i, { drawing, style = '' }] of Object.values(DRAWINGS).entries())
    await writeFile(
      join(temp.path, files[i]!),
      `<!doctype html><html lang="en"><meta name="viewport" content="width=device-width"><title>Drawing</title>
<style>svg { display: block; font: 16px Arial } ${style}</style><h1>Passengers by isle</h1>
<svg viewBox="0 0 300 100" width="300" height="100">${drawing}</svg><p>Counted at the quay, day by day.</p>`,
    );
  const args = ['check', ...files, '--at', '600x800', '--shots', 'none', '--json'];
  const { findings } = manifestOf(await isoptic(args, { cwd: temp.path }));
  told = files.map((_, i) =>
    findings
      .filter(({ severity, pages }) => severity !== 'notice' && pages.includes(`drawing-${i}`))
      .map(({ rule, selector }) => `${rule} ${selector}`),
  );
});
afterAll(() => temp.dispose());

test.each(Object.entries(DRAWINGS).map(([name, { told: wanted }], i) => [name, i, wanted] as const))(
  '%s',
  (_, i, wanted) => {
    expect(told[i]).toEqual(wanted ? [expect.stringMatching(wanted)] : []);
  },
);

test('a drawing that is a page of its own', async () => {
  const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="700" height="100">${ON_EACH_OTHER}</svg>`;
  const server = createServer((_, answer) =>
    answer.writeHead(200, { 'content-type': 'image/svg+xml' }).end(drawing),
  );
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  const page = `http://127.0.0.1:${port}/isles.svg`;
  const args = ['check', page, '--at', '600x800', '--shots', 'none', '--json'];
  const { renders, findings } = manifestOf(await isoptic(args, { cwd: temp.path }));
  await new Promise((resolve) => server.close(resolve));
  expect(renders.map(({ status }) => status)).toEqual(['ok']);
  expect(findings).toContainEqual(expect.objectContaining({ rule: 'page-overflow', selector: 'svg' }));
});
