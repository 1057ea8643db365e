import { readFile } from 'node:fs/promises';
import { relative } from 'node:path';
import { IsopticError, messageOf } from '../../core/errors.js';
import { NETWORKS, type Conditions } from '../../core/profile/conditions.js';
import { nearestNames, type Catalogue } from '../../core/profile/pick.js';
import type { Profile } from '../../core/profile/profile.js';
import { profileSchema } from '../../core/profile/profile-schema.js';
import { loadCatalogue } from '../../run/catalogue.js';
import { configFile } from './find.js';
import type { Parsed } from './explain.js';
import { parseWithRules } from './parse-with-rules.js';
import { configSchema, type Config } from './schema.js';

export interface Settings {
  /** Where it was read from; null where there is no configuration. */
  readonly file: string | null;
  readonly config: Config;
  /** The shipped catalogue with the configuration's own profiles and lineups. */
  readonly catalogue: Catalogue;
  /** Where a key of the configuration was written, `file:line`. */
  readonly whereOf: Parsed<Config>['whereOf'];
}

/**
 * The configuration: the file named, or the nearest one from the working folder upwards.
 * @throws IsopticError `bad-config` with file, line, key and what is allowed
 */
export async function loadSettings(named?: string): Promise<Settings> {
  const file = await configFile(named);
  const shipped = await loadCatalogue();
  if (file === null) {
    return { file, config: configSchema([]).parse({}), catalogue: shipped, whereOf: () => 'isoptic.yaml' };
  }
  const shown = relative(process.cwd(), file);
  const text = await readFile(file, 'utf8').catch((error: unknown) => {
    throw new IsopticError(
      'bad-config',
      `${shown}: can not be read (${messageOf(error)}).`,
      'Name another file with --config.',
    );
  });
  const { data: config, whereOf } = await parseWithRules(text, shown, configSchema);
  const own = Object.keys(config.profiles).map((name) => ownProfile(name, config, shipped, shown, []));
  const catalogue: Catalogue = {
    profiles: [...shipped.profiles.filter((profile) => !(profile.name in config.profiles)), ...own],
    agents: shipped.agents,
    lineups: { ...shipped.lineups, ...config.lineups },
  };
  if (config.defaultLineup !== undefined && !(config.defaultLineup in catalogue.lineups)) {
    throw new IsopticError(
      'bad-config',
      `${shown}: defaultLineup: there is no lineup named "${config.defaultLineup}".`,
      `Nearest: ${nearestNames(config.defaultLineup, Object.keys(catalogue.lineups)).join(', ')}.`,
    );
  }
  return { file, config, catalogue, whereOf };
}

/** A profile of the configuration with what it takes over from another one filled in. */
function ownProfile(
  name: string,
  config: Config,
  shipped: Catalogue,
  shown: string,
  path: readonly string[],
): Profile {
  const own = config.profiles[name];
  const base = shipped.profiles.find((profile) => profile.name === name);
  if (!own || (path.includes(name) && base)) return base!;
  if (path.includes(name)) {
    throw new IsopticError(
      'bad-config',
      `${shown}: profiles.${name}: takes itself over by way of ${path.join(', ')}.`,
      'Break the circle.',
    );
  }
  const { from, ...changes } = own;
  let start: Partial<Profile> = {};
  if (from !== undefined) {
    if (from in config.profiles && from !== name)
      start = ownProfile(from, config, shipped, shown, [...path, name]);
    else {
      const found = shipped.profiles.find((profile) => profile.name === from);
      if (!found) {
        const names = [...shipped.profiles.map((profile) => profile.name), ...Object.keys(config.profiles)];
        throw new IsopticError(
          'bad-config',
          `${shown}: profiles.${name}.from: there is no profile named "${from}".`,
          `Nearest: ${nearestNames(from, names).join(', ')}.`,
        );
      }
      start = found;
    }
  }
  const result = profileSchema.safeParse({
    ...start,
    ...changes,
    // A changed size replaces the orientations of the one it was taken from.
    insets: changes.insets ?? (changes.viewport ? undefined : start.insets),
    name,
  });
  if (result.success) return result.data;
  const [issue] = result.error.issues;
  throw new IsopticError(
    'bad-config',
    `${shown}: profiles.${name}${issue!.path.map((part) => `.${String(part)}`).join('')}: ${issue!.message}`,
    from === undefined
      ? 'Give all keys, or take the rest from another profile with `from`.'
      : 'Mend it and try again.',
  );
}

/** Conditions with their network's name replaced by its numbers. @throws IsopticError `unknown-network` */
export function withNetwork(conditions: Conditions, config: Config): Conditions {
  const { network } = conditions;
  if (typeof network !== 'string') return conditions;
  const known = { ...NETWORKS, ...config.networks } as Record<string, Config['networks'][string]>;
  const found = known[network];
  if (!found) {
    throw new IsopticError(
      'unknown-network',
      `There is no network named "${network}".`,
      `Use one of ${Object.keys(known).join(', ')}, or name one of your own under "networks" in the configuration.`,
    );
  }
  return { ...conditions, network: found };
}
