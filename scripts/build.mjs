// Builds dist/: the program and the library as bundles that share their parts, what runs in pages and in the report as scripts of
// their own, the catalogue as one checked file, and the types. `--types` checks them as well.
import { spawnSync } from 'node:child_process';
import { chmodSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { basename } from 'node:path';
import { marked } from 'marked';
import { build } from 'esbuild';
import { loadSource } from './load-source.mjs';
import { byRequire } from './by-require.mjs';
import { silentDriver } from './silent-driver.mjs';
import { withoutModules } from './without-modules.mjs';
import { writeNotices } from './notices.mjs';

rmSync('dist', { recursive: true, force: true });
const { version, dependencies } = JSON.parse(readFileSync('package.json', 'utf8'));

const program = await build({
  entryPoints: {
    'cli/main': 'src/cli/main.ts',
    index: 'src/api/index.ts',
    'workers/pixels': 'src/run/compare/pixel-worker.ts',
  },
  outdir: 'dist',
  bundle: true,
  splitting: true,
  chunkNames: 'chunks/[name]-[hash]',
  format: 'esm',
  platform: 'node',
  target: 'node20',
  jsx: 'automatic',
  jsxImportSource: 'preact',
  // What is installed beside the package: native code, the browser, fonts. Zod is, too, for the types of the library.
  external: Object.keys(dependencies).filter((name) => name !== 'zod'),
  // The driver's ways to download browsers, to speak another protocol and to speak over a socket: never called, two thirds of its code.
  plugins: [
    withoutModules(/^(proxy-agent|extract-zip|unbzip2-stream|tar-fs|ws|chromium-bidi\/.*)$/),
    silentDriver(),
    byRequire('sharp'),
  ],
  define: { ISOPTIC_VERSION: JSON.stringify(version) },
  // Packages that are bundled and not modules yet ask for Node's own by `require`, and for their own name.
  banner: {
    js: [
      "import { createRequire as isopticRequire } from 'node:module';",
      "import { fileURLToPath as isopticPath } from 'node:url';",
      'const require = isopticRequire(import.meta.url);',
      'const __filename = isopticPath(import.meta.url);',
    ].join('\n'),
  },
  // Less to read at every start; names stay, for stack traces.
  minifyWhitespace: true,
  minifySyntax: true,
  legalComments: 'none',
  metafile: true,
  logLevel: 'warning',
});
chmodSync('dist/cli/main.js', 0o755);

const script = {
  bundle: true,
  format: 'iife',
  target: 'chrome120',
  minify: true,
  legalComments: 'none',
  logLevel: 'warning',
};
await build({ ...script, entryPoints: ['src/page/main.ts'], outfile: 'dist/page/collector.js' });
const report = await build({
  ...script,
  metafile: true,
  entryPoints: ['src/report/client/main.tsx'],
  outfile: 'dist/report/client.js',
  jsx: 'automatic',
  jsxImportSource: 'preact',
  // The components' packages ask whether they are being developed.
  define: { 'process.env.NODE_ENV': '"production"' },
});
const comparing = await build({
  ...script,
  metafile: true,
  entryPoints: ['src/report/compare-client/main.tsx'],
  outfile: 'dist/report/compare.js',
  jsx: 'automatic',
  jsxImportSource: 'preact',
  define: { 'process.env.NODE_ENV': '"production"' },
});
writeNotices(
  { ...program.metafile.inputs, ...report.metafile.inputs, ...comparing.metafile.inputs },
  'dist/THIRD-PARTY-NOTICES.txt',
);
for (const sheet of ['report', 'compare'])
  await build({
    entryPoints: [`src/report/${sheet}.css`],
    outfile: `dist/report/${sheet}.css`,
    minify: true,
  });
const rulePages = readdirSync('docs/rules').map((file) => {
  const text = readFileSync(`docs/rules/${file}`, 'utf8');
  // The name is what opens the page, and links lead to files that a report does not have.
  const html = marked.parse(text.replace(/^# .*\n/, ''), { async: false });
  return [basename(file, '.md'), html.replace(/<a [^>]*>(.*?)<\/a>/g, '$1')];
});
writeFileSync('dist/report/rules.json', JSON.stringify(Object.fromEntries(rulePages)));

const { readCatalogue } = await loadSource('src/run/read-catalogue.ts');
writeFileSync('dist/catalogue.json', JSON.stringify(await readCatalogue('profiles')));

const { manifestJsonSchema } = await loadSource('src/run/manifest.ts');
mkdirSync('docs/schema', { recursive: true });
writeFileSync('docs/schema/run.schema.json', `${JSON.stringify(manifestJsonSchema(), null, 2)}\n`);
const { compareJsonSchema } = await loadSource('src/run/compare/record.ts');
writeFileSync('docs/schema/compare.schema.json', `${JSON.stringify(compareJsonSchema(), null, 2)}\n`);

const types = spawnSync(
  process.execPath,
  [
    'node_modules/typescript-native/bin/tsc',
    '-p',
    'tsconfig.json',
    '--emitDeclarationOnly',
    '--outDir',
    'dist/types',
  ],
  { stdio: 'inherit' },
);
process.exit(types.status ?? 1);
