// Publishes the JSON Schema of run.json, made from the Zod schema. `--check` only says whether it is up to date.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { manifestJsonSchema } from '../dist/run/manifest.js';

const file = 'docs/schema/run.schema.json';
const text = `${JSON.stringify(manifestJsonSchema(), null, 2)}\n`;
if (process.argv.includes('--check')) {
  if (readFileSync(file, 'utf8') !== text) {
    console.error(`${file} is out of date; run \`npm run build\`.`);
    process.exit(1);
  }
} else {
  mkdirSync('docs/schema', { recursive: true });
  writeFileSync(file, text);
}
