/** A name without the numbers at its end, and those with what follows: `ios-phone-390:landscape`. */
const PARTS = /^(.*?)-(\d[\dx@.]*(?::[a-z]+)?)$/;

/** What is told of a profile. */
export interface NamedProfile {
  readonly name: string;
  /** In brackets after it. */
  readonly aside?: string | undefined;
}

/** Names of profiles with what they share said once: `ios-phone 375 (20 px), 390 (5 px); tv-1920`. */
export function profileNames(profiles: readonly NamedProfile[]): string {
  const groups = new Map<string, NamedProfile[]>();
  for (const profile of profiles) {
    const family = PARTS.exec(profile.name)?.[1] ?? profile.name;
    groups.set(family, [...(groups.get(family) ?? []), profile]);
  }
  const aside = (text: string | undefined) => (text === undefined ? '' : ` (${text})`);
  const listed = [...groups].map(([family, members]) => {
    if (members.length === 1) return members[0]!.name + aside(members[0]!.aside);
    const sizes = members.map(({ name, aside: said }) => PARTS.exec(name)![2]! + aside(said));
    return `${family} ${sizes.join(', ')}`;
  });
  return listed.join(listed.some((text) => text.includes(', ')) ? '; ' : ', ');
}

/** A short head for each profile's column, no two alike: by its width, and where that is not enough by its place. */
export function columnHeads(
  profiles: readonly { readonly name: string; readonly width: number; readonly platform: string }[],
): string[] {
  const ways: ((profile: (typeof profiles)[number], at: number) => string)[] = [
    ({ width }) => String(width),
    ({ width, platform }) => `${platform.charAt(0)}${width}`,
    (_, at) => `#${at + 1}`,
  ];
  const heads = ways.map((way) => profiles.map(way));
  return heads.find((all) => new Set(all).size === all.length)!;
}
