// `npm test`: lint, types and all tests, those over the pages of bench/ sampled. `npm run verify`: the rest, whole. Each ends
// with a line "N passed, N failed" taken from Jest's own result. Names of test files as arguments run those alone.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';

const isWhole = process.argv.includes('--whole');
const only = process.argv.slice(2).filter((arg) => arg !== '--whole');

const run = (label, args, env = {}) => {
  console.error(`test: ${label}`);
  const { status } = spawnSync(process.execPath, args, {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...env },
  });
  if (status !== 0) console.error(`test: ${label} FAILED`);
  return status === 0;
};

const LINT = [
  ['lint', ['node_modules/eslint/bin/eslint.js', '.']],
  ['format', ['node_modules/prettier/bin/prettier.cjs', '--check', '--log-level=warn', '.']],
  ...[
    'tsconfig.json',
    'src/core/tsconfig.json',
    'src/page/tsconfig.json',
    'src/report/client/tsconfig.json',
    'test/tsconfig.json',
  ].map((project) => [`types ${project}`, ['node_modules/typescript/bin/tsc', '-p', project, '--noEmit']]),
];
/** Tests that are sampled in `npm test` and run over everything here, and those that are too long for every change. */
const WHOLE = ['test/engine/in-place', 'test/long'];
const ACCURACY = ['bench/accuracy.mjs', '--check'];

const checks = only.length > 0 || isWhole ? [] : LINT;
let failedChecks = checks.filter(([label, args]) => !run(label, args)).length;

const name = isWhole ? 'whole' : 'jest';
const resultFile = `.setup/${name}.json`;
mkdirSync('.setup', { recursive: true });
rmSync(resultFile, { force: true });
const jestOk = run(
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
  const sampled = isWhole ? [] : ['--one-of', '10'];
  if (!run(`accuracy ${sampled.join(' ')}`, [...ACCURACY, ...sampled])) failedChecks++;
}
const result = JSON.parse(readFileSync(resultFile, 'utf8'));
// A suite that could not even start counts as one failure, and so does each failed check.
const failed = result.numFailedTests + result.numRuntimeErrorTestSuites + failedChecks;
writeFileSync(`.setup/${name}.count.json`, JSON.stringify({ passed: result.numPassedTests, failed }));
console.log(`${result.numPassedTests} passed, ${failed} failed`);
process.exit(jestOk && failed === 0 && result.numPassedTests > 0 ? 0 : 1);
