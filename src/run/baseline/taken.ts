import { renderKey } from '../render-key.js';
import type { FindingRecord, Manifest, RenderRecord } from '../manifest.js';
import type { BaselineIndex } from './index-file.js';

/** Which renders are taken over: all where nothing is named. */
export interface Chosen {
  readonly pages: readonly string[];
  readonly profiles: readonly string[];
  /** Single renders. */
  readonly renders: readonly { readonly page: string; readonly profile: string }[];
}

export function isChosen({ pages, profiles, renders }: Chosen, page: string, profile: string): boolean {
  if (renders.some((each) => each.page === page && each.profile === profile)) return true;
  if (renders.length > 0 && pages.length + profiles.length === 0) return false;
  return (
    (pages.length === 0 || pages.includes(page)) && (profiles.length === 0 || profiles.includes(profile))
  );
}

/** The renders of a run that came to something. */
export function okRenders({ renders }: Pick<Manifest, 'renders'>): RenderRecord[] {
  return renders.filter(({ status }) => status === 'ok');
}

/** What a baseline keeps of a run's records: timings are others each time, and would change the file. */
export function recordsOf(manifest: Manifest): Pick<BaselineIndex, 'run'> {
  const { format, version, tool, engine, fonts, startedAt, interrupted, pages, profiles } = manifest;
  return {
    run: {
      format,
      version,
      tool,
      engine,
      ...(fonts !== undefined && { fonts }),
      startedAt,
      interrupted,
      pages,
      profiles,
      renders: okRenders(manifest).map((render) => ({
        ...render,
        timings: { loadMs: 0, settleMs: 0, collectMs: 0, analyseMs: 0, shotMs: 0, causeMs: 0 },
        shots: {},
      })),
    },
  };
}

/** What both have once, the newer one's, in the order of the older. */
export function joined<T>(before: readonly T[], after: readonly T[], key: (each: T) => string): T[] {
  const newer = new Map(after.map((each) => [key(each), each]));
  const known = new Set(before.map(key));
  return [
    ...before.map((each) => newer.get(key(each)) ?? each),
    ...after.filter((each) => !known.has(key(each))),
  ];
}

/** The findings of what was taken over from the newer run, and of the rest from the older one. */
export function findingsTaken(
  before: readonly FindingRecord[],
  after: readonly FindingRecord[],
  isTaken: (page: string, profile: string) => boolean,
): FindingRecord[] {
  const seenIn = (findings: readonly FindingRecord[], isWanted: (page: string, profile: string) => boolean) =>
    findings.flatMap((finding) => {
      const seen = finding.seen.filter(({ page, profile }) => isWanted(page, profile));
      return seen.length > 0 ? [{ ...finding, seen }] : [];
    });
  const stays = seenIn(before, (page, profile) => !isTaken(page, profile));
  const comes = seenIn(after, isTaken);
  const byId = new Map(stays.map((finding) => [finding.id, finding]));
  for (const finding of comes) {
    const other = byId.get(finding.id);
    const seen = [...(other?.seen ?? []), ...finding.seen];
    byId.set(finding.id, { ...finding, seen: uniqueSeen(seen) });
  }
  return [...byId.values()];
}

function uniqueSeen(seen: FindingRecord['seen']): FindingRecord['seen'] {
  return [...new Map(seen.map((each) => [renderKey(each.page, each.profile), each])).values()];
}
