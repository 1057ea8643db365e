import { execFile } from 'node:child_process';
import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import * as tar from 'tar';
import { serve } from './program.js';

interface Installed {
  readonly path: string;
  readonly manifest: Record<string, unknown> & { name: string; version: string };
}

/**
 * An npm registry on the loopback address that offers what is installed here for use (not for development), so that a
 * packed tarball can be installed for real, without the network.
 */
export async function loopbackRegistry(): Promise<{ origin: string; close: () => Promise<void> }> {
  const { stdout } = await promisify(execFile)('npm', ['ls', '--omit=dev', '--all', '--parseable'], {
    maxBuffer: 1 << 24,
  });
  const packages = new Map<string, Installed[]>();
  for (const path of new Set(stdout.trim().split('\n').slice(1))) {
    const manifest = JSON.parse(await readFile(join(path, 'package.json'), 'utf8')) as Installed['manifest'];
    packages.set(manifest.name, [...(packages.get(manifest.name) ?? []), { path, manifest }]);
  }
  const tarballs = new Map<string, Buffer>();
  const tarballOf = async ({ path, manifest }: Installed) => {
    const key = `${manifest.name}@${manifest.version}`;
    let tarball = tarballs.get(key);
    if (!tarball) {
      const parts: Buffer[] = [];
      const filter = (file: string) => !/(^|\/)node_modules(\/|$)/.test(file);
      const stream = tar.create(
        { gzip: { level: 1 }, cwd: path, prefix: 'package', portable: true, filter },
        ['.'],
      );
      for await (const part of stream) parts.push(part);
      tarballs.set(key, (tarball = Buffer.concat(parts)));
    }
    return tarball;
  };

  const registry = await serve((request, response) => {
    void (async () => {
      const [, name = '', version] =
        /^\/([^?]+?)(?:\/-\/(.+)\.tgz)?$/.exec(decodeURIComponent(request.url ?? '')) ?? [];
      const found = packages.get(name);
      if (!found)
        return response.writeHead(404, { 'content-type': 'application/json' }).end('{"error":"not found"}');
      if (version !== undefined) {
        const wanted = found.find((entry) => entry.manifest.version === version);
        return response.writeHead(wanted ? 200 : 404).end(wanted ? await tarballOf(wanted) : '');
      }
      const versions: Record<string, unknown> = {};
      for (const entry of found) {
        const integrity = `sha512-${createHash('sha512')
          .update(await tarballOf(entry))
          .digest('base64')}`;
        const tarball = `${registry.origin}/${name}/-/${entry.manifest.version}.tgz`;
        versions[entry.manifest.version] = { ...entry.manifest, dist: { tarball, integrity } };
      }
      const latest = found.at(-1)!.manifest.version;
      return response
        .writeHead(200, { 'content-type': 'application/json' })
        .end(JSON.stringify({ name, versions, 'dist-tags': { latest } }));
    })();
  });
  return registry;
}
