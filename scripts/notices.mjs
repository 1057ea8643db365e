import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** Writes the licences of every package whose code a bundle holds. */
export function writeNotices(inputs, file) {
  const folders = new Set(
    Object.keys(inputs).flatMap((input) => /^(.*node_modules\/(?:@[^/]+\/)?[^/]+)\//.exec(input)?.[1] ?? []),
  );
  const parts = [...folders].sort().map((folder) => {
    const { name, version, license } = JSON.parse(readFileSync(join(folder, 'package.json'), 'utf8'));
    const text = existsSync(folder) && readdirSync(folder).find((entry) => /^licen[cs]e/i.test(entry));
    const licence = text ? readFileSync(join(folder, text), 'utf8').trim() : `Licence: ${license}`;
    return `${name} ${version}\n\n${licence}\n`;
  });
  writeFileSync(
    file,
    `The program holds code of these packages.\n\n${parts.join(`\n${'-'.repeat(78)}\n\n`)}`,
  );
}
