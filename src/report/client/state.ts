import { batch, computed, effect, signal } from '@preact/signals';
import { said } from './said.js';
import { addressOf, FIRST_VIEW, viewOf, type View } from '../view/address.js';
import type { ReportData } from '../view/data.js';
import { paneGroups, type ProfileRecord } from '../view/lineup.js';
import { chosen, listed, type Listed } from '../view/listing.js';
import { unpackPlaces } from '../../core/compare/packed-places.js';
import type { Place } from '../../core/compare/places.js';
import type { FindingRecord, RenderRecord } from '../../run/manifest.js';
import { renderKey } from '../../run/render-key.js';
import { marksOf } from '../marks.js';

/** What the report was given, and what the reader looks at: one state, kept in the address. */
export const data = JSON.parse(document.getElementById('data')!.textContent) as ReportData;
export const { manifest } = data;

export const view = signal<View>(viewOf(location.hash.slice(1)));
/** What a picture or a row under the pointer is about: lit up in all places. */
export const lit = signal<string | null>(null);
/** The open sheet: help, or the facts of a pane. */
export const sheet = signal<
  { readonly kind: 'help' } | { readonly kind: 'facts'; readonly profile: string } | null
>(null);
export { said };

export function look(change: Partial<View>): void {
  view.value = { ...view.value, ...change };
}

/** Steps that a reader would want to go back by; others only change the address where it is. */
export function goTo(change: Partial<View>): void {
  const before = location.hash;
  look(change);
  const after = `#${addressOf(view.value)}`;
  if (after !== before) history.pushState(null, '', after);
}

effect(() => {
  const address = `#${addressOf(view.value)}`;
  if (address !== location.hash && !(address === '#' && location.hash === ''))
    history.replaceState(null, '', address);
});
addEventListener('popstate', () => (view.value = viewOf(location.hash.slice(1))));
addEventListener('hashchange', () => (view.value = viewOf(location.hash.slice(1))));

export const all = listed(manifest);
const known = new Set(data.known);
const numbers = new Map(all.map(({ finding, number }) => [finding.id, number]));
/** The gravest of a render. */
export const markOf = marksOf(manifest);
export const numberOf = (finding: FindingRecord): number => numbers.get(finding.id)!;

export const page = computed(
  () => manifest.pages.find(({ id }) => id === view.value.page) ?? manifest.pages[0]!,
);
const rendersByKey = new Map(
  manifest.renders.map((render) => [renderKey(render.page, render.profile), render]),
);
export const renderOf = (pageId: string, profile: string): RenderRecord | undefined =>
  rendersByKey.get(renderKey(pageId, profile));

/** What a search over its widths found of the page that is shown; null where there was none. */
export const sweep = computed(
  () => manifest.sweep?.find((each) => each.page === page.value.id && each.axis === 'width') ?? null,
);

/** Of a search over sizes every page has sizes of its own. */
const profilesOfPage = computed(() =>
  manifest.sweep
    ? manifest.profiles.filter(({ name }) => renderOf(page.value.id, name) !== undefined)
    : manifest.profiles,
);
export const groups = computed(() => paneGroups(profilesOfPage.value, view.value));
export const shownProfiles = computed<readonly ProfileRecord[]>(() =>
  groups.value.flatMap(({ profiles }) => profiles),
);

/** The findings in the drawer: those of this page, or with words to search for, of all. */
export const list = computed<Listed[]>(() =>
  chosen(all, view.value.search.trim() === '' ? page.value.id : null, view.value, known),
);
/** A finding on a pane. */
export interface PaneMark {
  readonly listed: Listed;
  readonly seen: FindingRecord['seen'][number];
}

/** Those that are drawn on the panes. */
const onPage = computed(() => chosen(all, page.value.id, { ...view.value, search: '' }, known));
export const marksByProfile = computed(() => {
  const marks = new Map<string, PaneMark[]>();
  for (const entry of onPage.value) {
    for (const seen of entry.finding.seen) {
      if (seen.page !== page.value.id) continue;
      marks.set(seen.profile, [...(marks.get(seen.profile) ?? []), { listed: entry, seen }]);
    }
  }
  return marks;
});

export const opened = computed(() => manifest.findings.find(({ id }) => id === view.value.finding) ?? null);

export function open(finding: FindingRecord | null): void {
  if (!finding) return goTo({ finding: '' });
  batch(() => {
    const isHere = finding.seen.some((seen) => seen.page === page.value.id);
    goTo({ finding: finding.id, ...(!isHere && { page: finding.page }) });
    said.value = `${finding.severity}: ${finding.message}`;
  });
}

/** The next of the list, or the one before. */
export function step(by: 1 | -1): void {
  const at = list.value.findIndex(({ finding }) => finding.id === view.value.finding);
  const next = list.value[at < 0 ? (by > 0 ? 0 : list.value.length - 1) : at + by];
  if (next) open(next.finding);
}

export function stepPage(by: 1 | -1): void {
  const at = manifest.pages.indexOf(page.value) + by;
  const next = manifest.pages[at];
  if (!next) return;
  goTo({ page: next.id, finding: '' });
  said.value = next.source;
}

export const isFiltered = computed(
  () =>
    view.value.age !== 'all' ||
    (['without', 'rules', 'families', 'profiles'] as const).some((key) => view.value[key].length > 0),
);
export const clearFilters = () =>
  look({
    without: [],
    rules: [],
    families: [],
    profiles: [],
    search: '',
    waived: FIRST_VIEW.waived,
    age: 'all',
  });

const unpacked = new Map<string, readonly Place[]>();
/** The places of a render, by which it is brought in line with others. */
export function placesOn(pageId: string, profile: string): readonly Place[] {
  const key = renderKey(pageId, profile);
  let places = unpacked.get(key);
  if (!places) {
    const kept = data.places[pageId];
    places = kept ? unpackPlaces(kept, profile) : [];
    unpacked.set(key, places);
  }
  return places;
}

export const pictureUrl = (path: string): string => data.pictures[path] ?? path;
