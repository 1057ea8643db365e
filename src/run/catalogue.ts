import { readdir, readFile } from 'node:fs/promises';
import { parse } from 'yaml';
import { z } from 'zod';
import { IsopticError, messageOf } from '../core/errors.js';
import { agentTableSchema } from '../core/profile/agent.js';
import type { Catalogue } from '../core/profile/pick.js';
import { profileSchema } from '../core/profile/profile.js';
import { packageFile } from '../package-file.js';

const AGENTS = 'user-agents.yaml';

/** The order in which the classes are listed. */
const FILES = ['phones', 'foldables', 'tablets', 'split-windows', 'laptops', 'desktops', 'televisions'];

/** What a check uses when nothing is picked: two phones, two tablets, a laptop and a desktop. */
const DEFAULT_LINEUP = [
  'android-phone-360',
  'ios-phone-390',
  'android-tablet-800',
  'ios-tablet-820',
  'windows-laptop-1366',
  'mac-desktop-1728',
];

/** The profiles, the user agent table and the lineup that ship with Isoptic. */
export async function loadCatalogue(): Promise<Catalogue> {
  const files = (await readdir(packageFile('profiles'))).filter(
    (file) => file.endsWith('.yaml') && file !== AGENTS,
  );
  const place = (file: string) =>
    (FILES.indexOf(file.replace('.yaml', '')) + FILES.length + 1) % (FILES.length + 1);
  files.sort((a, b) => place(a) - place(b) || a.localeCompare(b));
  const [agents, ...lists] = await Promise.all([
    readYaml(`profiles/${AGENTS}`, agentTableSchema),
    ...files.map((file) => readYaml(`profiles/${file}`, z.array(profileSchema).min(1))),
  ]);
  return { profiles: lists.flat(), agents, lineups: { default: DEFAULT_LINEUP } };
}

async function readYaml<T>(path: string, schema: z.ZodType<T>): Promise<T> {
  try {
    return schema.parse(parse(await readFile(packageFile(path), 'utf8')));
  } catch (error) {
    const what = error instanceof z.ZodError ? z.prettifyError(error) : messageOf(error);
    throw new IsopticError('bad-catalogue', `${path}: ${what}`, 'Install Isoptic again.');
  }
}
