import { readFile } from 'node:fs/promises';
import { parse } from 'yaml';
import { z } from 'zod';
import { IsopticError, messageOf } from '../core/errors.js';
import type { Catalogue } from '../core/profile/pick.js';
import { agentTableSchema, profileSchema } from '../core/profile/profile.js';
import { packageFile } from './package-file.js';

/** The profiles and the user agent table that ship with Isoptic. */
export async function loadCatalogue(): Promise<Catalogue> {
  const [profiles, agents] = await Promise.all([
    readYaml('profiles/catalogue.yaml', z.array(profileSchema).min(1)),
    readYaml('profiles/user-agents.yaml', agentTableSchema),
  ]);
  return { profiles, agents };
}

async function readYaml<T>(path: string, schema: z.ZodType<T>): Promise<T> {
  try {
    return schema.parse(parse(await readFile(packageFile(path), 'utf8'), { merge: true }));
  } catch (error) {
    const what = error instanceof z.ZodError ? z.prettifyError(error) : messageOf(error);
    throw new IsopticError('bad-catalogue', `${path}: ${what}`, 'Install Isoptic again.');
  }
}
