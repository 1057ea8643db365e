// Lint, type check, all tests; then one line "N passed, N failed" taken from Jest's own result.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';

const run = (label, args) => {
  console.error(`test: ${label}`);
  return spawnSync(process.execPath, args, { stdio: ['ignore', 'inherit', 'inherit'] }).status === 0;
};

const checks = [
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
let failedChecks = 0;
for (const [label, args] of checks) {
  if (!run(label, args)) {
    console.error(`test: ${label} FAILED`);
    failedChecks++;
  }
}

const resultFile = '.setup/jest.json';
mkdirSync('.setup', { recursive: true });
rmSync(resultFile, { force: true });
const jestOk = run('jest', [
  '--experimental-vm-modules',
  '--no-warnings',
  'node_modules/jest/bin/jest.js',
  '--json',
  `--outputFile=${resultFile}`,
  ...process.argv.slice(2),
]);
if (!existsSync(resultFile)) {
  console.error('test: Jest wrote no result');
  process.exit(1);
}
if (process.argv.length === 2 && !run('accuracy', ['bench/accuracy.mjs', '--check'])) failedChecks++;
const result = JSON.parse(readFileSync(resultFile, 'utf8'));
// A suite that could not even start counts as one failure, and so does each failed check.
const failed = result.numFailedTests + result.numRuntimeErrorTestSuites + failedChecks;
console.log(`${result.numPassedTests} passed, ${failed} failed`);
process.exit(jestOk && failed === 0 && result.numPassedTests > 0 ? 0 : 1);
