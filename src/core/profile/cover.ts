import type { Profile } from './profile.js';

/** One row of an analytics export: a size in CSS px and how often it was seen. */
export interface Visit {
  readonly width: number;
  /** Null where the export has none; then only the width counts. */
  readonly height: number | null;
  readonly dpr: number | null;
  readonly visits: number;
}

/** One entry of a proposed lineup, as it is written after `--on` or `--at`. */
export interface Share {
  readonly name: string;
  readonly visits: number;
  /** Of all visits, 0 to 1. */
  readonly share: number;
}

/** A profile stands for a width that differs from its own by at most this much: layouts differ less than breakpoints. */
const WIDTH_SLACK = 0.03;

/**
 * The smallest lineup that covers a share of all visits. Every visit counts for the profile nearest to it by width, then
 * by height and pixel ratio; where none is near, for an ad-hoc size of its own. Since no visit counts twice, taking the
 * largest first gives the smallest number.
 * @param cover 0 to 1
 */
export function coveringLineup(
  visits: readonly Visit[],
  profiles: readonly Profile[],
  cover: number,
): { lineup: Share[]; covered: number; total: number } {
  const total = visits.reduce((sum, visit) => sum + visit.visits, 0);
  const byName = new Map<string, number>();
  for (const visit of visits) {
    const name = nearestProfile(visit, profiles) ?? adHocName(visit);
    byName.set(name, (byName.get(name) ?? 0) + visit.visits);
  }
  const ordered = [...byName].sort((a, b) => b[1] - a[1] || a[0].localeCompare(b[0]));
  const lineup: Share[] = [];
  let covered = 0;
  for (const [name, count] of ordered) {
    if (covered >= cover * total) break;
    covered += count;
    lineup.push({ name, visits: count, share: count / total });
  }
  return { lineup, covered: total === 0 ? 0 : covered / total, total };
}

function nearestProfile(visit: Visit, profiles: readonly Profile[]): string | null {
  let best: { name: string; distance: number } | null = null;
  for (const profile of profiles) {
    for (const orientation of ['portrait', 'landscape'] as const) {
      const viewport = profile.viewport[orientation];
      if (!viewport) continue;
      const distance = distanceTo(visit, profile, viewport, orientation);
      if (distance === null || (best && distance >= best.distance)) continue;
      const natural = profile.viewport[profile.orientation] ? profile.orientation : orientation;
      best = { name: orientation === natural ? profile.name : `${profile.name}:${orientation}`, distance };
    }
  }
  return best?.name ?? null;
}

function distanceTo(
  visit: Visit,
  profile: Profile,
  viewport: { width: number; height: number },
  orientation: string,
): number | null {
  const byWidth = Math.abs(visit.width - viewport.width) / viewport.width;
  if (byWidth > WIDTH_SLACK) return null;
  if (visit.height !== null && visit.height > visit.width !== (orientation === 'portrait')) return null;
  // An export may give the screen or the viewport; the nearer of the two counts, and little.
  const heights = [
    viewport.height,
    orientation === profile.orientation ? profile.screen.height : profile.screen.width,
  ];
  const byHeight =
    visit.height === null ? 0 : Math.min(...heights.map((h) => Math.abs(visit.height! - h) / h));
  const byRatio = visit.dpr === null ? 0 : Math.abs(visit.dpr - profile.dpr) / profile.dpr;
  return byWidth * 10 + byHeight + byRatio;
}

function adHocName({ width, height, dpr }: Visit): string {
  const ratio = dpr === null || dpr === 1 ? '' : `@${dpr}`;
  return `${width}x${height ?? Math.round(width * 0.6)}${ratio}`;
}
