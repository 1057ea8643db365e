import { distance } from 'fastest-levenshtein';
import { IsopticError } from '../errors.js';
import { adHocProfile } from './ad-hoc.js';
import { hold } from './hold.js';
import { ORIENTATIONS, type AgentTable, type Device, type Orientation, type Profile } from './profile.js';

export interface Catalogue {
  readonly profiles: readonly Profile[];
  readonly agents: AgentTable;
}

/** One pick as the user wrote it: a profile's name with or without a suffix, or an ad-hoc size. */
export type Pick = { readonly on: string } | { readonly at: string };

/**
 * The devices for the user's picks, in the order written, each once.
 * @throws IsopticError `unknown-profile` with the nearest names; `bad-size`; `profile-orientation`
 */
export function pickDevices(picks: readonly Pick[], catalogue: Catalogue): Device[] {
  const devices = new Map<string, Device>();
  for (const pick of picks) {
    const device =
      'at' in pick ? hold(adHocProfile(pick.at), catalogue.agents) : pickByName(pick.on, catalogue);
    devices.set(device.name, device);
  }
  return [...devices.values()];
}

function pickByName(written: string, catalogue: Catalogue): Device {
  const [name = '', suffix, ...rest] = written.split(':');
  const profile = catalogue.profiles.find((candidate) => candidate.name === name);
  if (!profile) {
    const near = nearestNames(
      name,
      catalogue.profiles.map((candidate) => candidate.name),
    );
    throw new IsopticError(
      'unknown-profile',
      `There is no profile named "${name}".`,
      `Nearest: ${near.join(', ')}. \`isoptic profiles\` lists all; --at WIDTHxHEIGHT takes any size.`,
    );
  }
  if (suffix === undefined) return hold(profile, catalogue.agents);
  if (rest.length > 0 || !ORIENTATIONS.includes(suffix as Orientation)) {
    throw new IsopticError(
      'unknown-orientation',
      `"${written}": there is no orientation "${[suffix, ...rest].join(':')}".`,
      `Use ${ORIENTATIONS.map((orientation) => `${name}:${orientation}`).join(' or ')}.`,
    );
  }
  return hold(profile, catalogue.agents, suffix as Orientation);
}

/** The `count` names that differ from `wanted` by the fewest edits (Levenshtein), nearest first. */
export function nearestNames(wanted: string, names: readonly string[], count = 3): string[] {
  return [...names]
    .map((name) => ({ name, edits: distance(wanted.toLowerCase(), name.toLowerCase()) }))
    .sort((a, b) => a.edits - b.edits || a.name.localeCompare(b.name))
    .slice(0, count)
    .map((entry) => entry.name);
}
