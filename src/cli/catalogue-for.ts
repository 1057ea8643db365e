import type { Catalogue } from '../core/profile/pick.js';
import { loadCatalogue } from '../run/catalogue.js';
import { configFile } from './config/find.js';

/** The shipped catalogue with what a configuration adds to it, where there is one. @throws IsopticError `bad-config` */
export async function catalogueFor(config: string | undefined): Promise<Catalogue> {
  if ((await configFile(config)) === null) return loadCatalogue();
  const { loadSettings } = await import('./config/load.js');
  return (await loadSettings(config)).catalogue;
}
