import type { RenderView } from '../sightings/sighting.js';
import type { Group } from './sighting-group.js';

/** Two sizes may fail alike by chance; from three on, "at every width" says something. */
const LEAST_WIDTHS = 3;

/**
 * Other widths as evidence, once all renders of a page are in: what holds at every width, the widest included, is likely
 * meant; what begins at some width is likely a failure.
 */
export function withWidths(groups: readonly Group[], renders: readonly RenderView[]): Group[] {
  return groups.flatMap((group) => {
    if (group.rule.meta.needsFreeWidth) {
      const entries = group.entries.filter((entry) => isFreeWhenWider(group, entry, renders));
      return entries.length > 0 ? [{ ...group, entries }] : [];
    }
    return [isMeant(group, renders) ? lighter(group) : group];
  });
}

/** A wider render of the same page, or state of it, does not show the defect. */
function isFreeWhenWider(
  { entries }: Group,
  entry: Group['entries'][number],
  renders: readonly RenderView[],
): boolean {
  return renders.some(
    ({ page, device }) =>
      page === entry.page &&
      device.width > entry.width &&
      !entries.some((other) => other.page === page && other.profile === device.name),
  );
}

/** So little of it that it may be meant, and it is there on every render of the pages that show it. */
function isMeant({ entries }: Group, renders: readonly RenderView[]): boolean {
  if (!entries.every(({ sighting }) => sighting.mild)) return false;
  const pages = new Set(entries.map(({ page }) => page));
  const all = renders.filter(({ page }) => pages.has(page));
  const widths = new Set(all.map(({ device }) => device.width));
  return widths.size >= LEAST_WIDTHS && entries.length === all.length;
}

function lighter(group: Group): Group {
  const entries = group.entries.map((entry) => ({
    ...entry,
    sighting: { ...entry.sighting, severity: 'notice' as const },
  }));
  return { ...group, entries };
}
