import { createReadStream, createWriteStream } from 'node:fs';
import { mkdtemp, readdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { fileURLToPath } from 'node:url';
import { createBrotliDecompress } from 'node:zlib';
import { IsopticError, messageOf } from '../../core/errors.js';
import { exists } from '../exists.js';
import { userCache } from '../user-cache.js';
import type { FoundBrowser } from './found-browser.js';

const PACKAGE = '@sparticuz/chromium';

let unpacked: Promise<string> | null = null;

/**
 * The browser inside the npm dependency, unpacked once into the user's cache folder with its libraries and fonts. The
 * package's own code unpacks the libraries only on the host it is made for, so its archives are read here.
 * @throws IsopticError `no-browser`, exit status 4
 */
export async function bundledBrowser(): Promise<FoundBrowser> {
  if (process.platform !== 'linux' || process.arch !== 'x64') {
    throw new IsopticError(
      'no-browser',
      `No Chromium or Chrome was found, and the bundled one does not run on ${process.platform} ${process.arch}.`,
      'Install Chromium or Chrome, or name one with --browser or ISOPTIC_BROWSER.',
      4,
    );
  }
  // Several browsers may be started at once.
  unpacked ??= unpackOnce();
  const folder = await unpacked.catch((error: unknown) => {
    unpacked = null;
    throw error;
  });
  return {
    executable: join(folder, 'chromium'),
    origin: 'bundled',
    shell: true,
    env: {
      LD_LIBRARY_PATH: [join(folder, 'lib'), process.env['LD_LIBRARY_PATH'] ?? ''].filter(Boolean).join(':'),
      FONTCONFIG_FILE: join(folder, 'isoptic-fonts.conf'),
    },
  };
}

async function unpackOnce(): Promise<string> {
  const packed = await packageFolder();
  const { folder: cache } = await userCache();
  const folder = join(cache, `chromium-${packed.version}`);
  if (await exists(folder)) return folder;
  let fresh: string | undefined;
  try {
    // Unpacked beside its final place, then renamed: a folder of that name is always complete.
    fresh = await mkdtemp(join(cache, 'unpacking-'));
    await unpack(packed.bin, fresh, folder);
    await rename(fresh, folder).catch(async (error: unknown) => {
      // Another process was first; its folder is as good.
      if (!(await exists(folder))) throw error;
    });
    return folder;
  } catch (error) {
    throw new IsopticError(
      'no-browser',
      `The bundled browser could not be unpacked into ${cache}: ${messageOf(error)}.`,
      'Make room there or make it writable, set XDG_CACHE_HOME to another folder, or install Chromium.',
      4,
    );
  } finally {
    if (fresh !== undefined) await rm(fresh, { recursive: true, force: true });
  }
}

async function unpack(bin: string, into: string, finalFolder: string): Promise<void> {
  const tar = await import('tar');
  await Promise.all(
    (await readdir(bin)).map(async (file) => {
      const source = createReadStream(join(bin, file));
      if (file.endsWith('.tar.br')) {
        await pipeline(source, createBrotliDecompress(), tar.extract({ cwd: into }));
      } else if (file.endsWith('.br')) {
        const target = createWriteStream(join(into, basename(file, '.br')), { mode: 0o755 });
        await pipeline(source, createBrotliDecompress(), target);
      }
    }),
  );
  await writeFile(join(into, 'isoptic-fonts.conf'), fontConfiguration(finalFolder));
}

/** The machine's fonts first where it has any, then the one that comes with the browser. */
function fontConfiguration(folder: string): string {
  return `<?xml version="1.0"?>
<!DOCTYPE fontconfig SYSTEM "urn:fontconfig:fonts.dtd">
<fontconfig>
  <dir>/usr/share/fonts</dir>
  <dir>/usr/local/share/fonts</dir>
  <dir>${join(folder, 'fonts').replace(/[<&]/g, (sign) => (sign === '<' ? '&lt;' : '&amp;'))}</dir>
  <cachedir prefix="xdg">fontconfig</cachedir>
</fontconfig>
`;
}

async function packageFolder(): Promise<{ bin: string; version: string }> {
  try {
    let folder = dirname(fileURLToPath(import.meta.resolve(PACKAGE)));
    while (!(await exists(join(folder, 'bin', 'chromium.br')))) {
      if (dirname(folder) === folder) throw new Error('its archives are not there');
      folder = dirname(folder);
    }
    const manifest = JSON.parse(await readFile(join(folder, 'package.json'), 'utf8')) as { version: string };
    return { bin: join(folder, 'bin'), version: manifest.version };
  } catch (error) {
    throw new IsopticError(
      'no-browser',
      `No Chromium or Chrome was found, and the bundled one is missing: ${messageOf(error)}.`,
      'Run `npm install` again, install Chromium, or name a browser with --browser.',
      4,
    );
  }
}
