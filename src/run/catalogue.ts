import { readFile } from 'node:fs/promises';
import { IsopticError, messageOf } from '../core/errors.js';
import type { Catalogue } from '../core/profile/pick.js';
import { packageFile } from '../package-file.js';

/** The profiles, the user agent table and the lineup that ship with Isoptic, checked when it was built. */
export async function loadCatalogue(): Promise<Catalogue> {
  const path = 'dist/catalogue.json';
  try {
    return JSON.parse(await readFile(packageFile(path), 'utf8')) as Catalogue;
  } catch (error) {
    throw new IsopticError('bad-catalogue', `${path}: ${messageOf(error)}`, 'Install Isoptic again.');
  }
}
