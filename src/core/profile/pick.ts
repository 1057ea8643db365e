import { distance } from 'fastest-levenshtein';
import { IsopticError } from '../errors.js';
import { adHocProfile } from './ad-hoc.js';
import type { AgentTable } from './agent.js';
import type { Conditions } from './conditions.js';
import { canTurn, hold, HOLDS, naturalHold, type Hold } from './hold.js';
import type { Device, Profile } from './profile.js';

export interface Catalogue {
  readonly profiles: readonly Profile[];
  readonly agents: AgentTable;
  /** Named, ordered lists of picks, as they would be written after `--on`. */
  readonly lineups: Readonly<Record<string, readonly string[]>>;
}

/** One pick as the user wrote it: a profile's name with or without a suffix, an ad-hoc size, or a lineup's name. */
export type Pick = { readonly on: string } | { readonly at: string } | { readonly lineup: string };

export interface PickOptions {
  /** Adds the other orientation of every picked profile right after it. */
  readonly turn?: boolean;
  readonly conditions?: Conditions;
}

/**
 * The devices for the user's picks, in the order written, each once.
 * @throws IsopticError `unknown-profile`, `unknown-lineup`, `unknown-orientation` with the nearest names; `bad-size`;
 *   `profile-orientation`
 */
export function pickDevices(
  picks: readonly Pick[],
  catalogue: Catalogue,
  options: PickOptions = {},
): Device[] {
  const devices = new Map<string, Device>();
  for (const { profile, held } of picks.flatMap((pick) => resolve(pick, catalogue))) {
    const holds = [held ?? naturalHold(profile)];
    if (options.turn === true && canTurn(profile)) {
      holds.push(holds[0]!.startsWith('portrait') ? 'landscape' : 'portrait');
    }
    for (const each of holds) {
      const device = hold(profile, catalogue.agents, each, options.conditions);
      devices.set(device.name, device);
    }
  }
  return [...devices.values()];
}

interface Resolved {
  readonly profile: Profile;
  readonly held: Hold | undefined;
}

function resolve(pick: Pick, catalogue: Catalogue): Resolved[] {
  if ('at' in pick) return [{ profile: adHocProfile(pick.at), held: undefined }];
  if ('on' in pick) return [byName(pick.on, catalogue)];
  const lineup = catalogue.lineups[pick.lineup];
  if (!lineup) {
    const names = Object.keys(catalogue.lineups);
    throw new IsopticError(
      'unknown-lineup',
      `There is no lineup named "${pick.lineup}".`,
      `Nearest: ${nearestNames(pick.lineup, names).join(', ')}. Lineups are named in the configuration.`,
    );
  }
  return lineup.map((written) =>
    /^\d+x\d+/.test(written) ? resolve({ at: written }, catalogue)[0]! : byName(written, catalogue),
  );
}

function byName(written: string, catalogue: Catalogue): Resolved {
  const [name = '', suffix, ...rest] = written.split(':');
  const profile = catalogue.profiles.find((candidate) => candidate.name === name);
  if (!profile) {
    const names = catalogue.profiles.map((candidate) => candidate.name);
    throw new IsopticError(
      'unknown-profile',
      `There is no profile named "${name}".`,
      `Nearest: ${nearestNames(name, names).join(', ')}. \`isoptic profiles\` lists all; --at WIDTHxHEIGHT takes any size.`,
    );
  }
  if (suffix === undefined) return { profile, held: undefined };
  const held = HOLDS.find((candidate) => candidate === suffix);
  if (rest.length > 0 || !held) {
    throw new IsopticError(
      'unknown-orientation',
      `"${written}": there is no orientation "${[suffix, ...rest].join(':')}".`,
      `Use ${HOLDS.map((orientation) => `${name}:${orientation}`).join(', ')}.`,
    );
  }
  return { profile, held };
}

/** The `count` names that differ from `wanted` by the fewest edits (Levenshtein), nearest first. */
export function nearestNames(wanted: string, names: readonly string[], count = 3): string[] {
  return [...names]
    .map((name) => ({ name, edits: distance(wanted.toLowerCase(), name.toLowerCase()) }))
    .sort((a, b) => a.edits - b.edits || a.name.localeCompare(b.name))
    .slice(0, count)
    .map((entry) => entry.name);
}
