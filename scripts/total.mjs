// Adds up what `npm test` and `npm run verify` counted. A part that left no count has failed.
import { existsSync, readFileSync } from 'node:fs';

const parts = ['jest', 'whole'].map((name) => {
  const file = `.setup/${name}.count.json`;
  return existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : { passed: 0, failed: 1 };
});
const sum = (key) => parts.reduce((all, part) => all + part[key], 0);
console.log(`${sum('passed')} passed, ${sum('failed')} failed`);
process.exit(sum('failed') === 0 && sum('passed') > 0 ? 0 : 1);
