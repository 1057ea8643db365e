import type { Manifest, RenderRecord } from '../manifest.js';
import { renderKey } from '../render-key.js';

/** One profile of each side. */
export interface ProfilePair {
  readonly a: string;
  readonly b: string;
}

type ProfileRecord = Manifest['profiles'][number];

/** Two renders that are compared. */
export interface RenderPair {
  readonly page: string;
  readonly a: RenderRecord;
  readonly b: RenderRecord;
  readonly profileA: ProfileRecord;
  readonly profileB: ProfileRecord;
}

/**
 * The renders of two runs that go together: of one page on one profile, or on the two that were named. What has no counterpart is told in notes.
 */
export function pairsOf(
  a: Manifest,
  b: Manifest,
  profiles: ProfilePair | null,
): { readonly pairs: RenderPair[]; readonly notes: string[] } {
  const notes: string[] = [];
  const onlyIn = (what: string, all: readonly string[], side: string) => {
    if (all.length > 0)
      notes.push(`${what}${all.length > 1 ? 's' : ''} only in the ${side}: ${all.join(', ')}`);
  };
  const ids = (run: Manifest) => run.pages.map(({ id }) => id);
  const names = (run: Manifest) => run.profiles.map(({ name }) => name);
  const without = (all: readonly string[], other: readonly string[]) =>
    all.filter((name) => !other.includes(name));
  onlyIn('page', without(ids(a), ids(b)), 'first');
  onlyIn('page', without(ids(b), ids(a)), 'second');
  if (!profiles) {
    onlyIn('profile', without(names(a), names(b)), 'first');
    onlyIn('profile', without(names(b), names(a)), 'second');
  }
  const wanted = profiles
    ? [[profiles.a, profiles.b] as const]
    : names(b)
        .filter((name) => names(a).includes(name))
        .map((name) => [name, name] as const);
  const rendersIn = (run: Manifest) =>
    new Map(run.renders.map((render) => [renderKey(render.page, render.profile), render]));
  const [left, right] = [rendersIn(a), rendersIn(b)];
  const pairs: RenderPair[] = [];
  for (const page of ids(b)) {
    for (const [one, other] of wanted) {
      const [from, to] = [left.get(renderKey(page, one)), right.get(renderKey(page, other))];
      if (!from || !to) continue;
      if (from.status === 'failed' || to.status === 'failed') {
        notes.push(
          `${page} on ${other}: not rendered in the ${from.status === 'failed' ? 'first' : 'second'}`,
        );
        continue;
      }
      const profileOf = (run: Manifest, name: string) =>
        run.profiles.find((profile) => profile.name === name)!;
      pairs.push({ page, a: from, b: to, profileA: profileOf(a, one), profileB: profileOf(b, other) });
    }
  }
  return { pairs, notes };
}
