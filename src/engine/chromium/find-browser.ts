import { accessSync, constants, statSync } from 'node:fs';
import { delimiter, isAbsolute, join, resolve } from 'node:path';
import { IsopticError } from '../../core/errors.js';
import { bundledBrowser } from './bundled-browser.js';
import type { FoundBrowser } from './found-browser.js';

/** The headless variants first: a full browser makes a window and a profile for every context, at three times the cost. */
const NAMES = [
  'chromium-headless-shell',
  'chrome-headless-shell',
  'chromium',
  'chromium-browser',
  'google-chrome-stable',
  'google-chrome',
  'chrome',
];

const FIXED_PLACES: Partial<Record<NodeJS.Platform, string[]>> = {
  darwin: [
    '/Applications/Google Chrome.app/Contents/MacOS/Google Chrome',
    '/Applications/Chromium.app/Contents/MacOS/Chromium',
  ],
  win32: [
    'C:\\Program Files\\Google\\Chrome\\Application\\chrome.exe',
    'C:\\Program Files (x86)\\Google\\Chrome\\Application\\chrome.exe',
  ],
};

/**
 * The browser to use, in the order of docs: the one named, `ISOPTIC_BROWSER`, one installed on the system, the one in
 * the npm dependency.
 * @throws IsopticError `no-browser`, exit status 4
 */
export async function findBrowser(named: string | undefined): Promise<FoundBrowser> {
  for (const [origin, path] of [
    ['--browser', named],
    ['ISOPTIC_BROWSER', process.env['ISOPTIC_BROWSER']],
  ] as const) {
    if (path === undefined || path === '') continue;
    const executable = isAbsolute(path) || /[\\/]/.test(path) ? resolve(path) : onPath([path]);
    if (executable === null || !isProgram(executable)) {
      throw new IsopticError(
        'no-browser',
        `${origin}: ${path} is not a program that can be started.`,
        'Give the path of a Chromium or Chrome program, or leave it out to have one found.',
        4,
      );
    }
    return { executable, origin, shell: isShell(executable), env: {} };
  }
  const installed = systemBrowser();
  if (installed !== null) {
    return { executable: installed, origin: 'system', shell: isShell(installed), env: {} };
  }
  return bundledBrowser();
}

function isShell(executable: string): boolean {
  return /headless[-_]shell/.test(executable);
}

/** The path of a Chromium or Chrome that is installed on the machine, or null. */
export function systemBrowser(): string | null {
  const found = onPath(NAMES);
  if (found !== null) return found;
  for (const path of FIXED_PLACES[process.platform] ?? []) if (isProgram(path)) return path;
  return null;
}

function onPath(names: readonly string[]): string | null {
  const folders = (process.env['PATH'] ?? '').split(delimiter).filter((folder) => folder !== '');
  const suffix = process.platform === 'win32' ? '.exe' : '';
  for (const name of names) {
    for (const folder of folders) {
      const path = join(folder, name + suffix);
      if (isProgram(path)) return path;
    }
  }
  return null;
}

/** At once, not in turns: everything waits for the browser. */
function isProgram(path: string): boolean {
  try {
    accessSync(path, constants.X_OK);
    return statSync(path).isFile();
  } catch {
    return false;
  }
}
