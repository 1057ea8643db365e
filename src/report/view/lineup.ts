import type { Manifest, RenderRecord } from '../../run/manifest.js';
import type { View } from './address.js';

export type ProfileRecord = Manifest['profiles'][number];

/** Profiles of one class, in the order of the lineup. */
export interface PaneGroup {
  readonly name: string;
  readonly profiles: readonly ProfileRecord[];
}

const NAMES: Readonly<Record<ProfileRecord['class'], string>> = {
  phone: 'Phones',
  foldable: 'Foldables',
  tablet: 'Tablets',
  split: 'Split windows',
  laptop: 'Laptops',
  desktop: 'Desktops',
  tv: 'Televisions',
  window: 'Windows',
};

/** Which profiles the wall shows, by class, classes in the order in which the lineup comes to them. */
export function paneGroups(
  profiles: readonly ProfileRecord[],
  { held, scheme }: Pick<View, 'held' | 'scheme'>,
): PaneGroup[] {
  const groups = new Map<string, ProfileRecord[]>();
  for (const profile of profiles) {
    // One that was rendered in one way only is shown, whichever way is asked for.
    if (held !== 'both' && profile.orientation !== held && turnedOf(profile, profiles)) continue;
    if (scheme !== 'both' && profile.scheme !== scheme && otherSchemeOf(profile, profiles)) continue;
    const name = NAMES[profile.class];
    groups.set(name, [...(groups.get(name) ?? []), profile]);
  }
  return [...groups].map(([name, members]) => ({ name, profiles: members }));
}

/** A name without how it is held and in which scheme: `ios-phone-390:landscape+dark` is `ios-phone-390`. */
const baseOf = (name: string) => name.replace(/\+dark$/, '').replace(/:[a-z-]+$/, '');
const schemeOf = (name: string) => name.endsWith('+dark');

/** The same device held the other way, if it was rendered. */
export function turnedOf(profile: ProfileRecord, all: readonly ProfileRecord[]): ProfileRecord | undefined {
  return all.find(
    (other) =>
      other.orientation !== profile.orientation &&
      baseOf(other.name) === baseOf(profile.name) &&
      schemeOf(other.name) === schemeOf(profile.name),
  );
}

/** The same device in the other colour scheme, if it was rendered. */
export function otherSchemeOf(
  profile: ProfileRecord,
  all: readonly ProfileRecord[],
): ProfileRecord | undefined {
  const bare = (name: string) => name.replace(/\+dark$/, '');
  return all.find((other) => other.scheme !== profile.scheme && bare(other.name) === bare(profile.name));
}

/** Of a picture of a whole page, its size in CSS px, and where on the page it begins; of the first screen where there is no other. */
export function pictureSize(
  profile: ProfileRecord,
  { shots, document }: RenderRecord,
): { readonly left: number; readonly width: number; readonly height: number } {
  if (shots.full === undefined || !document) return { left: 0, width: profile.width, height: profile.height };
  return {
    left: document.left ?? 0,
    width: Math.max(document.width, profile.width),
    height: Math.max(document.height, profile.height),
  };
}
