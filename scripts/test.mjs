// `npm test`: lint, types and all tests, those over the pages of bench/ sampled. `npm run verify`: the rest, whole. Each ends
// with a line "N passed, N failed" taken from Jest's own result. Names of test files as arguments run those alone;
// `--whole --one-of 2` takes half of the pages of bench/accuracy and bench/surroundings.
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';

const isWhole = process.argv.includes('--whole');
const shareAt = process.argv.indexOf('--one-of');
/** Of the pages of bench/accuracy and bench/surroundings, one of so many; null for all of them. */
const share = isWhole ? (shareAt < 0 ? null : process.argv[shareAt + 1]) : '100';
const only = process.argv
  .slice(2)
  .filter((arg, i) => arg !== '--whole' && (shareAt < 0 || ![shareAt, shareAt + 1].includes(i + 2)));

const run = async (label, args, env = {}) => {
  const started = performance.now();
  console.error(`test: ${label}`);
  const child = spawn(process.execPath, args, {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...env },
  });
  const [status] = await once(child, 'close');
  const seconds = Math.round((performance.now() - started) / 1000);
  console.error(`test: ${label} ${status === 0 ? 'done' : 'FAILED'} in ${seconds} s`);
  return status === 0;
};

/** Two at once, as many as the smallest machine has cores. @returns how many failed */
const runAll = async (checks) => {
  const waiting = [...checks];
  let failed = 0;
  const next = async () => {
    for (let check = waiting.shift(); check; check = waiting.shift()) if (!(await run(...check))) failed++;
  };
  await Promise.all([next(), next()]);
  return failed;
};

const TYPED_LINT = ['lint with types', ['node_modules/eslint/bin/eslint.js', '.']];
const LINT = [
  // The layers and what is seen without types: the other rules take a minute, and wait for `npm run verify`.
  ['lint', ['node_modules/eslint/bin/eslint.js', '.'], { LINT_TYPES: 'no' }],
  ['format', ['node_modules/prettier/bin/prettier.cjs', '--check', '--log-level=warn', '.']],
  ...[
    'tsconfig.json',
    'src/core/tsconfig.json',
    'src/page/tsconfig.json',
    'src/report/client/tsconfig.json',
    'test/tsconfig.json',
  ].map((project) => [
    `types ${project}`,
    ['node_modules/typescript-native/bin/tsc', '-p', project, '--noEmit'],
  ]),
];
/** Tests that are sampled in `npm test` and run over everything here, and those that are too long for every change. */
const WHOLE = ['test/engine/in-place', 'test/program/mirror', 'test/long'];
const BENCHES = ['accuracy', 'surroundings'];

const checks = only.length > 0 ? [] : isWhole ? [TYPED_LINT] : LINT;
let failedChecks = await runAll(checks);

const name = isWhole ? 'whole' : 'jest';
const resultFile = `.setup/${name}.json`;
mkdirSync('.setup', { recursive: true });
rmSync(resultFile, { force: true });
const jestOk = await run(
  'jest',
  [
    '--experimental-vm-modules',
    '--no-warnings',
    'node_modules/jest/bin/jest.js',
    '--json',
    `--outputFile=${resultFile}`,
    ...(isWhole ? WHOLE : only.length > 0 ? only : ['--testPathIgnorePatterns=test/long/']),
  ],
  isWhole ? { ISOPTIC_ALL: '1' } : {},
);
if (!existsSync(resultFile)) {
  console.error('test: Jest wrote no result');
  process.exit(1);
}
if (only.length === 0) {
  const sampled = share === null ? [] : ['--one-of', share];
  for (const bench of BENCHES)
    if (!(await run(`${bench} ${sampled.join(' ')}`, [`bench/${bench}.mjs`, '--check', ...sampled])))
      failedChecks++;
}
const result = JSON.parse(readFileSync(resultFile, 'utf8'));
// A suite that could not even start counts as one failure, and so does each failed check.
const failed = result.numFailedTests + result.numRuntimeErrorTestSuites + failedChecks;
writeFileSync(`.setup/${name}.count.json`, JSON.stringify({ passed: result.numPassedTests, failed }));
console.log(`${result.numPassedTests} passed, ${failed} failed`);
process.exit(jestOk && failed === 0 && result.numPassedTests > 0 ? 0 : 1);
