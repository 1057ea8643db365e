// Installs and builds what is missing, and nothing else. Needs only Node and npm, so it uses no dependency.
// A stamp for each step holds a digest of what that step depends on; a step whose stamp fits is skipped.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
process.chdir(root);

const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 19)) {
  console.error(
    `Isoptic needs Node.js 20.19 or newer; this is ${process.versions.node}. Install a newer Node.js and try again.`,
  );
  process.exit(2);
}

const filesBelow = (dir) =>
  readdirSync(dir, { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath ?? entry.path, entry.name))
    .sort();

const digest = (files, ...more) => {
  const hash = createHash('sha256');
  for (const file of files) hash.update(file).update('\0').update(readFileSync(file)).update('\0');
  for (const part of more) hash.update(part).update('\0');
  return hash.digest('hex');
};

function step(name, wanted, present, command, args) {
  const stamp = join('.setup', name);
  if (present && existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  console.error(`setup: ${name}`);
  const result = spawnSync(command, args, { stdio: ['ignore', 2, 2], shell: process.platform === 'win32' });
  if (result.status !== 0) {
    console.error(`setup: ${name} failed (${[command, ...args].join(' ')}). What it printed stands above.`);
    process.exit(1);
  }
  mkdirSync('.setup', { recursive: true });
  writeFileSync(stamp, wanted);
}

step(
  'install',
  digest(['package-lock.json'], process.version, process.platform, process.arch),
  existsSync('node_modules'),
  'npm',
  ['ci', '--no-audit', '--no-fund', '--loglevel=error'],
);
step(
  'build',
  digest([
    ...filesBelow('src'),
    'tsconfig.json',
    'package-lock.json',
    'scripts/build.mjs',
    'scripts/load-source.mjs',
    'scripts/notices.mjs',
    ...filesBelow('profiles'),
  ]),
  existsSync('dist/cli/main.js'),
  process.execPath,
  ['scripts/build.mjs'],
);
