import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { compareSchema, type Comparison } from '../../src/run/compare/record.js';
import { isoptic, temporaryFolder } from './program.js';

export const ON = 'ios-phone-390,windows-laptop-1366';

export const page = (main: string, style = '') =>
  `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>Quay</title>
<style>body { margin: 0; font: 16px/1.5 sans-serif } .card { padding: 16px; background: #dce9ec } ${style}</style>
<body><main>${main}</main></body></html>`;
export const BEFORE = page(
  '<h1>Wickham Quay</h1><p class="card">Boats cross every day.</p><p>Tickets at the quay.</p>',
);
export const AFTER = page(
  '<h1>Wickham Quay</h1><p class="news">A new boat from spring on.</p><p class="card">Boats cross every day.</p><p>Tickets on board.</p><div style="width:1500px;background:#0a8">Wide</div>',
);

/** A temporary folder with a site before and after a change, `before` and `after`, and a run of each, `run-before` and `run-after`. */
export async function compareSite() {
  const temp = await temporaryFolder();
  const inTemp = (...args: string[]) => isoptic(args, { cwd: temp.path });
  const check = (folder: string, out: string, ...more: string[]) =>
    inTemp('check', folder, '--on', ON, '--fail-on', 'never', '--out', out, ...more);
  const compared = async (...args: string[]): Promise<Comparison> => {
    const outcome = await inTemp('compare', ...args, '--json', '--replace', '--out', 'comparison');
    return compareSchema.parse(JSON.parse(outcome.stdout));
  };
  for (const [folder, text] of [
    ['before', BEFORE],
    ['after', AFTER],
  ] as const) {
    await mkdir(join(temp.path, folder));
    await writeFile(join(temp.path, folder, 'index.html'), text);
    await check(folder, `run-${folder}`);
  }
  return { ...temp, inTemp, check, compared };
}
