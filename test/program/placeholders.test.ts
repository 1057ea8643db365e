import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { isoptic, manifestOf, temporaryFolder } from '../support/program.js';

const LONG = 'Tell us when you sail, with how many, and whether you bring a bicycle or a dog along';
const area = (id: string, height: number, more: string) =>
  `<textarea id="${id}" aria-label="Note" style="width: 240px; height: ${height}px; font: 16px/24px Arial" ${more}></textarea>`;

test('a text area that is too low for its placeholder; not one that has room, or that has words which can be scrolled', async () => {
  const temp = await temporaryFolder();
  const areas = [
    area('low', 50, `placeholder="${LONG}"`),
    area('lines', 50, 'placeholder="One&#10;Two&#10;Three"'),
    area('high', 90, `placeholder="${LONG}"`),
    area('short', 30, 'placeholder="Your message"'),
    area('typed', 50, `placeholder="${LONG}"`).replace('></', `>${LONG}</`),
    area('labelled', 50, `class="labelled" placeholder="${LONG}"`),
  ];
  await writeFile(
    join(temp.path, 'note.html'),
    `<!doctype html><html lang="en"><meta name="viewport" content="width=device-width"><title>Note</title>
<style>.labelled::placeholder { color: transparent }</style><h1>A note to the skipper</h1>${areas.join('<br>')}`,
  );
  const args = ['check', 'note.html', '--at', '600x900', '--shots', 'none', '--json'];
  const { findings } = manifestOf(await isoptic(args, { cwd: temp.path }));
  await temp.dispose();
  expect(findings.map(({ rule, severity, selector }) => [rule, severity, selector])).toEqual([
    ['control-clipped', 'warning', '#low'],
    ['control-clipped', 'warning', '#lines'],
  ]);
  expect(findings[0]!.message).toMatch(/loses \d+ px and is cut off/);
});
