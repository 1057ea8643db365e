import { readdir } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import writeFileAtomic from 'write-file-atomic';
import { FONT_SET, type FontSetName } from '../../core/fonts/font-sets.js';
import { IsopticError, messageOf } from '../../core/errors.js';
import { exists } from '../exists.js';
import { userCache } from '../user-cache.js';

/** Where each family lies: an npm package, and in it one folder a style, or `ttf/`. */
const PACKAGES: Readonly<Record<string, string>> = {
  Roboto: '@expo-google-fonts/roboto',
  'Roboto Mono': '@expo-google-fonts/roboto-mono',
  Inter: '@expo-google-fonts/inter',
  Arimo: '@expo-google-fonts/arimo',
  Tinos: '@expo-google-fonts/tinos',
  Cousine: '@expo-google-fonts/cousine',
  Gelasio: '@expo-google-fonts/gelasio',
  Carlito: '@expo-google-fonts/carlito',
  'Open Sans': '@expo-google-fonts/open-sans',
  'Noto Sans': '@expo-google-fonts/noto-sans',
  'DejaVu Sans': 'dejavu-fonts-ttf',
};

/** For text in other scripts, and pictures among letters: the same on every platform. */
const FALLBACKS: Readonly<Record<string, string>> = {
  'Noto Sans Arabic': '@expo-google-fonts/noto-sans-arabic',
  'Noto Sans Hebrew': '@expo-google-fonts/noto-sans-hebrew',
  'Noto Sans Devanagari': '@expo-google-fonts/noto-sans-devanagari',
  'Noto Sans Thai': '@expo-google-fonts/noto-sans-thai',
  'Noto Sans SC': '@expo-google-fonts/noto-sans-sc',
  'Noto Color Emoji': '@expo-google-fonts/noto-color-emoji',
};

const NOWHERE = 'isoptic-not-on-this-device';

/** The path of the fontconfig file of a platform's set, written once into the user's cache folder. */
export async function fontconfigFile(set: FontSetName): Promise<string> {
  const { folder: cache } = await userCache();
  try {
    const settings = await fontconfig(set, join(cache, 'fontconfig'));
    const digest = createHash('sha256').update(JSON.stringify(settings)).digest('hex').slice(0, 12);
    const file = join(cache, `fonts-${set}-${digest}.conf`);
    if (await exists(file)) return file;
    await writeFileAtomic(file, await written(settings));
    return file;
  } catch (error) {
    throw new IsopticError(
      'no-fonts',
      `The fonts for ${set} could not be set up in ${cache}: ${messageOf(error)}.`,
      'Make the folder writable, set XDG_CACHE_HOME to another one, or use --fonts host.',
    );
  }
}

interface Rule {
  readonly '@target': string;
  readonly test?: object;
  readonly edit: object | readonly object[];
}

/** The contents of a fontconfig file, before they are written as XML. */
interface FontSettings {
  readonly dir: readonly string[];
  readonly cachedir: string;
  readonly match: readonly Rule[];
}

async function fontconfig(set: FontSetName, cachedir: string): Promise<FontSettings> {
  const { ui, sans, serif, mono, exact, standIns } = FONT_SET[set];
  const used = new Set(
    [ui, sans, serif, mono, ...Object.values(exact), ...Object.values(standIns)].map(packageFamily),
  );
  const packages = [...[...used].map((family) => PACKAGES[family]!), ...Object.values(FALLBACKS)];
  const dirs = (await Promise.all(packages.map(fontFolders))).flat();

  // What is here only to stand in for something else is not to be had by its own name.
  const hidden = [...used].filter((family) => exact[family] === undefined);
  const answers: Record<string, string> = {
    ...Object.fromEntries(hidden.map((family) => [family, NOWHERE])),
    ...exact,
    ...standIns,
    'sans-serif': sans,
    serif,
    monospace: mono,
    cursive: sans,
    fantasy: sans,
    'system-ui': ui,
    'ui-sans-serif': ui,
    'ui-serif': serif,
    'ui-monospace': mono,
    'ui-rounded': ui,
    sans: ui,
    emoji: 'Noto Color Emoji',
  };
  const rules: Rule[] = [
    ...Object.entries(answers)
      .filter(([family, font]) => family !== font)
      .map(([family, font]) => answer(family, font)),
    // Whatever a name was answered with, other scripts and emoji come from the same fonts everywhere.
    {
      '@target': 'pattern',
      edit: {
        '@name': 'family',
        '@mode': 'append_last',
        string: [sans, ...Object.keys(FALLBACKS)],
      },
    },
    {
      '@target': 'font',
      edit: [
        setting('antialias', 'bool', 'true'),
        setting('hinting', 'bool', 'false'),
        setting('autohint', 'bool', 'false'),
        setting('hintstyle', 'const', 'hintnone'),
        setting('rgba', 'const', 'none'),
        setting('lcdfilter', 'const', 'lcdnone'),
      ],
    },
  ];
  return { dir: dirs, cachedir, match: rules };
}

async function written(settings: FontSettings): Promise<string> {
  const { default: XMLBuilder } = await import('fast-xml-builder');
  const builder = new XMLBuilder({ ignoreAttributes: false, attributeNamePrefix: '@', format: true });
  const body = builder.build({ fontconfig: settings });
  return `<?xml version="1.0"?>\n<!DOCTYPE fontconfig SYSTEM "urn:fontconfig:fonts.dtd">\n${body}`;
}

function answer(family: string, font: string): Rule {
  return {
    '@target': 'pattern',
    test: { '@name': 'family', '@qual': 'any', '@compare': 'eq', string: family },
    edit: { '@name': 'family', '@mode': 'assign', '@binding': 'strong', string: font },
  };
}

function setting(name: string, type: string, value: string): object {
  return { '@name': name, '@mode': 'assign', [type]: value };
}

/** DejaVu's families lie in one package. */
function packageFamily(font: string): string {
  return font.startsWith('DejaVu') ? 'DejaVu Sans' : font;
}

async function fontFolders(packageName: string): Promise<string[]> {
  const root = await packageRoot(packageName);
  const entries = await readdir(root, { withFileTypes: true });
  return entries
    .filter((entry) => entry.isDirectory() && (/^\d{3}/.test(entry.name) || entry.name === 'ttf'))
    .map((entry) => join(root, entry.name))
    .sort();
}

async function packageRoot(packageName: string): Promise<string> {
  for (let folder = dirname(fileURLToPath(import.meta.url)); ; folder = dirname(folder)) {
    const root = join(folder, 'node_modules', packageName);
    if (await exists(join(root, 'package.json'))) return root;
    if (dirname(folder) === folder) throw new Error(`the package ${packageName} is not installed`);
  }
}
