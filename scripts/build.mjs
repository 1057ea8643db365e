// Builds dist/: the type-checked sources by tsc, the in-page collector and the report's script as single bundles.
import { spawnSync } from 'node:child_process';
import { chmodSync, cpSync, rmSync } from 'node:fs';
import { build } from 'esbuild';

rmSync('dist', { recursive: true, force: true });
const tsc = spawnSync(process.execPath, ['node_modules/typescript/bin/tsc', '-p', 'tsconfig.json'], {
  stdio: 'inherit',
});
if (tsc.status !== 0) process.exit(tsc.status ?? 1);

const bundle = {
  bundle: true,
  format: 'iife',
  target: 'chrome120',
  legalComments: 'none',
  logLevel: 'warning',
};
await build({ ...bundle, entryPoints: ['src/page/main.ts'], outfile: 'dist/page/collector.js' });
await build({
  ...bundle,
  minify: true,
  entryPoints: ['src/report/client/main.ts'],
  outfile: 'dist/report/client.js',
});
cpSync('src/report/report.css', 'dist/report/report.css');
chmodSync('dist/cli/main.js', 0o755);

const schema = spawnSync(process.execPath, ['scripts/write-schema.mjs'], { stdio: 'inherit' });
if (schema.status !== 0) process.exit(schema.status ?? 1);
