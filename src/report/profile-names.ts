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
  const groups = new Map<string, { readonly name: string; readonly size: string; readonly said: string }[]>();
  for (const { name, aside } of profiles) {
    // A name without a size stands for itself, whatever else begins with it.
    const [, family = name, size = ''] = PARTS.exec(name) ?? [];
    const key = size === '' ? `${name}\n` : family;
    const said = aside === undefined ? '' : ` (${aside})`;
    groups.set(key, [...(groups.get(key) ?? []), { name, size, said }]);
  }
  const listed = [...groups].map(([family, members]) => {
    const [first] = members as [(typeof members)[number]];
    if (members.length === 1) return first.name + first.said;
    return `${family} ${members.map(({ size, said }) => size + said).join(', ')}`;
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
