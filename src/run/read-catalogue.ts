import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { parse } from 'yaml';
import * as z from 'zod';
import { agentTableSchema } from '../core/profile/agent-schema.js';
import type { Catalogue } from '../core/profile/pick.js';
import { profileSchema } from '../core/profile/profile-schema.js';

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

/** Reads and checks the catalogue as it is written, in YAML. The built program has it as one file. */
export async function readCatalogue(folder: string): Promise<Catalogue> {
  const files = (await readdir(folder)).filter((file) => file.endsWith('.yaml') && file !== AGENTS);
  const place = (file: string) =>
    (FILES.indexOf(file.replace('.yaml', '')) + FILES.length + 1) % (FILES.length + 1);
  files.sort((a, b) => place(a) - place(b) || a.localeCompare(b));
  const [agents, ...lists] = await Promise.all([
    readYaml(join(folder, AGENTS), agentTableSchema),
    ...files.map((file) => readYaml(join(folder, file), z.array(profileSchema).min(1))),
  ]);
  return { profiles: lists.flat(), agents, lineups: { default: DEFAULT_LINEUP } };
}

async function readYaml<T>(path: string, schema: z.ZodType<T>): Promise<T> {
  const found = schema.safeParse(parse(await readFile(path, 'utf8')));
  if (!found.success) throw new Error(`${path}: ${z.prettifyError(found.error)}`);
  return found.data;
}
