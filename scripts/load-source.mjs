import { mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';

/** Bundles one TypeScript file, its packages left outside, and imports it: for scripts and benchmarks. */
export async function loadSource(file) {
  // Inside of the project, so that its packages are found.
  const folder = mkdtempSync(join('node_modules', '.isoptic-'));
  try {
    const outfile = join(folder, 'source.mjs');
    await build({
      entryPoints: [file],
      outfile,
      bundle: true,
      packages: 'external',
      format: 'esm',
      platform: 'node',
      jsx: 'automatic',
      jsxImportSource: 'preact',
      define: { ISOPTIC_VERSION: '"source"' },
      logLevel: 'warning',
    });
    return await import(pathToFileURL(outfile).href);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
