import { copyFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import pLimit from 'p-limit';
import { availableParallelism } from 'node:os';
import { packPlaces, type PagePlaces } from '../../core/compare/packed-places.js';
import { pairingOf, type Pairing } from '../../core/compare/pairing.js';
import { placesOf, type Place } from '../../core/compare/places.js';
import { differencesOf } from '../../core/compare/structure/differences.js';
import type { Difference } from '../../core/compare/structure/difference.js';
import { unlikeness } from '../../core/compare/unlike.js';
import { withoutQuery } from '../../core/delivery/urls.js';
import { messageOf } from '../../core/errors.js';
import { liesWithin, type Rect } from '../../core/geometry/rect.js';
import { query } from '../../core/identity/query.js';
import type { NodeIndex, SnapshotView } from '../../core/layout/view.js';
import { makeFolder } from '../../engine/make-folder.js';
import { loadSharp } from '../../engine/load-sharp.js';
import { VERSION } from '../../version.js';
import { fileName } from '../file-name.js';
import type { Manifest, RenderRecord } from '../manifest.js';
import type { RunFolder } from '../run-folder.js';
import { areSame, type Kept } from './kept.js';
import { pairsOf, type ProfilePair, type RenderPair } from './pairs.js';
import { comparedPixels, PixelThreads, type PicturePair } from './pixels.js';
import type { Comparison, DifferenceRecord, PairRecord } from './record.js';
import { settingsFor, type CompareScope, type PageSettings } from './settings.js';

export interface CompareOptions {
  readonly scopes: readonly CompareScope[];
  /** One profile of each, where profiles are compared and not runs. */
  readonly profiles: ProfilePair | null;
  /** Whether pictures are compared, too. */
  readonly pixels: boolean;
  readonly folder: RunFolder;
  readonly signal: AbortSignal;
  readonly onCompared: (done: number, of: number, page: string) => void;
}

/** What differs, and what brings the pictures of both to the same place. */
export interface ComparedWhole {
  readonly comparison: Comparison;
  /** By page: where headings, landmarks and texts are on each render that is compared, by `renderName`. */
  readonly places: Readonly<Record<string, PagePlaces>>;
}

/** One side of a pair among the renders of its page. */
export const renderName = (side: 'a' | 'b', profile: string) => `${side} ${profile}`;

/** Compares the renders of two runs, or of two profiles. What can't be compared is told in notes and costs nothing else. */
export async function compare(a: Kept, b: Kept, options: CompareOptions): Promise<ComparedWhole> {
  const { pairs, notes } = pairsOf(a.manifest, b.manifest, options.profiles);
  const threads = options.pixels ? new PixelThreads() : null;
  const limit = pLimit(availableParallelism());
  let done = 0;
  try {
    const records = await Promise.all(
      pairs.map((pair) =>
        limit(async () => {
          if (options.signal.aborted) return null;
          const compared = await new PairWork(a, b, pair, options, threads).run();
          options.onCompared(++done, pairs.length, pair.page);
          return compared;
        }),
      ),
    );
    const compared = records.filter((each) => each !== null);
    const left = pairs.length - compared.length;
    const comparison: Comparison = {
      format: 'isoptic-compare',
      version: 1,
      tool: { name: 'isoptic', version: VERSION },
      a: sideOf(a, options.profiles?.a),
      b: sideOf(b, options.profiles?.b),
      pages: b.manifest.pages.map(({ id, source, title }) => ({ id, source, title })),
      pairs: compared.map(({ record }) => record),
      findings: sortedFindings(a.manifest, b.manifest),
      notes: [
        ...notes,
        ...differingTools(a.manifest, b.manifest),
        ...(left > 0 ? [`interrupted: ${left} of ${pairs.length} were not compared`] : []),
      ],
    };
    return { comparison, places: placesByPage(compared) };
  } finally {
    await threads?.close();
  }
}

interface NamedPlaces {
  readonly name: string;
  readonly places: readonly Place[];
}

interface ComparedPair {
  readonly record: PairRecord;
  /** Of both sides; of none where a layout is missing. */
  readonly places: readonly NamedPlaces[];
}

function placesByPage(compared: readonly ComparedPair[]): Record<string, PagePlaces> {
  const pages = new Map<string, NamedPlaces[]>();
  for (const { record, places } of compared)
    pages.set(record.page, [...(pages.get(record.page) ?? []), ...places]);
  return Object.fromEntries([...pages].map(([page, places]) => [page, packPlaces(places)]));
}

function sideOf({ name, manifest }: Kept, profile: string | undefined): Comparison['a'] {
  const { engine, tool, startedAt } = manifest;
  const shown = profile === undefined ? name : `${name}:${profile}`;
  return { name: shown, startedAt, tool: tool.version, engine: `${engine.name} ${engine.version}` };
}

/** What lays pages out otherwise by itself. */
function differingTools(a: Manifest, b: Manifest): string[] {
  const [one, other] = [a, b].map(({ engine }) => `${engine.name} ${engine.version}`);
  return [
    ...(one === other ? [] : [`made with other browsers, ${one!} and ${other!}: what differs may be theirs`]),
    ...(a.fonts !== undefined && b.fonts !== undefined && a.fonts !== b.fonts
      ? [
          `laid out with other fonts, those of the ${a.fonts} and of the ${b.fonts}: what differs may be theirs`,
        ]
      : []),
  ];
}

/** The findings that only the second has, only the first, and both: by their ids, which are stable across runs. */
export function sortedFindings(
  a: Pick<Manifest, 'findings'>,
  b: Pick<Manifest, 'findings'>,
): Comparison['findings'] {
  const [before, after] = [a, b].map(({ findings }) => new Set(findings.map(({ id }) => id)));
  return {
    new: b.findings.filter(({ id }) => !before!.has(id)),
    gone: a.findings.filter(({ id }) => !after!.has(id)),
    same: b.findings.filter(({ id }) => before!.has(id)),
  };
}

/** One pair under way. */
class PairWork {
  private readonly notes: string[] = [];
  private readonly settings: PageSettings;

  constructor(
    private readonly a: Kept,
    private readonly b: Kept,
    private readonly pair: RenderPair,
    private readonly options: CompareOptions,
    private readonly threads: PixelThreads | null,
  ) {
    this.settings = settingsFor(pair.page, options.scopes);
  }

  async run(): Promise<ComparedPair> {
    const { pair, notes } = this;
    const views = await Promise.all([this.layoutOf(this.a, pair.a), this.layoutOf(this.b, pair.b)]);
    const pairing = views[0] && views[1] ? pairingOf(views[0], views[1]) : null;
    const differences = pairing ? this.structure(pairing) : [];
    const pixels = await this.pixels(pairing, differences);
    const isOther = differences.length > 0 || (pixels?.boxes.length ?? 0) > 0;
    const record: PairRecord = {
      page: pair.page,
      a: pair.a.profile,
      b: pair.b.profile,
      unlike: pairing && Math.round(1000 * unlikeness(pairing)) / 1000,
      variant: variantOf(pair, this.options.profiles !== null),
      differences: differences.map(differenceRecord),
      pixels,
      pictures: isOther ? await this.copied() : { a: null, b: null },
      sizes: { a: pair.a.document, b: pair.b.document },
      notes,
    };
    const named = (side: 'a' | 'b'): NamedPlaces[] =>
      pairing ? [{ name: renderName(side, pair[side].profile), places: placesOf(pairing[side].view) }] : [];
    return { record, places: [...named('a'), ...named('b')] };
  }

  private async layoutOf(kept: Kept, render: RenderRecord): Promise<SnapshotView | null> {
    try {
      return await kept.layout(render.page, render.profile);
    } catch (error) {
      this.notes.push(`its structure could not be compared: ${messageOf(error)}`);
      return null;
    }
  }

  private structure(pairing: Pairing): Difference[] {
    const { kinds, tolerance, parts } = this.settings;
    return differencesOf(pairing, {
      tolerance,
      kinds,
      parts: parts.map((part) => ({
        ...part,
        a: this.rowsOf(pairing.a.view, part.within),
        b: this.rowsOf(pairing.b.view, part.within),
      })),
      without: {
        a: this.rowsLeftOut(pairing.a.view),
        b: this.rowsLeftOut(pairing.b.view),
      },
    });
  }

  /** What selectors name, and what stands wholly in a region. */
  private rowsLeftOut(view: SnapshotView): Set<NodeIndex> {
    const { leaveOut, regions } = this.settings;
    const rows = this.rowsOf(view, leaveOut);
    for (let i = 0; regions.length > 0 && i < view.count; i++)
      if (regions.some((region) => liesWithin(view.box(i), region, 0))) rows.add(i);
    return rows;
  }

  private rowsOf(view: SnapshotView, selectors: readonly string[]): Set<NodeIndex> {
    return new Set(selectors.flatMap((selector) => query(view, selector)));
  }

  private async pixels(
    pairing: Pairing | null,
    differences: readonly Difference[],
  ): Promise<PairRecord['pixels']> {
    const { threads, pair, settings, options } = this;
    if (!threads) return null;
    const pictures = await this.pictures(pairing);
    if (!pictures) return null;
    try {
      if (await areSame(pictures.a, pictures.b)) return { score: 0, boxes: [], heat: null };
      const told = `heat/${pair.page}/${fileName(pair.b.profile)}.png`;
      const path = options.folder.full(told);
      await makeFolder(dirname(path));
      const found = await comparedPixels(threads, pictures, pairing, differences, {
        without: this.leftOut(pairing),
        least: settings.colour,
        heat: { path, told },
      });
      return found.score <= settings.pixels ? { ...found, boxes: [], heat: null } : found;
    } catch (error) {
      this.notes.push(`its pictures could not be compared: ${messageOf(error)}`);
      return null;
    }
  }

  /** The pictures that both have, where the window is the same; of the whole page, or of the screen. */
  private async pictures(pairing: Pairing | null): Promise<PicturePair | null> {
    const { a, b, pair } = this;
    const isSame = (['width', 'height', 'dpr', 'scheme'] as const).every(
      (key) => pair.profileA[key] === pair.profileB[key],
    );
    if (!isSame) return null;
    for (const kind of ['full', 'fold'] as const) {
      const [one, other] = await Promise.all([a.picture(pair.a, kind), b.picture(pair.b, kind)]);
      if (one === null || other === null) continue;
      const [shownA, shownB] = await Promise.all([
        shownIn(one, kind, pair.a, pair.profileA.dpr, pairing?.a.view),
        shownIn(other, kind, pair.b, pair.profileB.dpr, pairing?.b.view),
      ]).catch((error: unknown) => {
        this.notes.push(`its pictures could not be compared: ${messageOf(error)}`);
        return [null, null];
      });
      return shownA && shownB ? { a: one, b: other, shownA, shownB } : null;
    }
    if (pair.a.shots.full !== undefined || pair.a.shots.fold !== undefined)
      this.notes.push('its pictures are not there any more, so they could not be compared');
    return null;
  }

  private leftOut(pairing: Pairing | null): Rect[] {
    const { leaveOut, regions } = this.settings;
    const view = pairing?.b.view;
    return [...regions, ...(view ? [...this.rowsOf(view, leaveOut)].map((row) => view.box(row)) : [])];
  }

  /** The pictures beside the comparison, so that it can be sent and kept. */
  private async copied(): Promise<PairRecord['pictures']> {
    const { pair, options, a, b } = this;
    const copy = async (kept: Kept, render: RenderRecord, side: string) => {
      const path = (await kept.picture(render, 'full')) ?? (await kept.picture(render, 'fold'));
      if (path === null) return null;
      const told = `shots/${side}/${render.page}/${fileName(render.profile)}.${path.split('.').at(-1)!}`;
      try {
        await makeFolder(dirname(options.folder.full(told)));
        await copyFile(path, options.folder.full(told));
        return told;
      } catch (error) {
        this.notes.push(`a picture could not be copied: ${messageOf(error)}`);
        return null;
      }
    };
    return { a: await copy(a, pair.a, 'a'), b: await copy(b, pair.b, 'b') };
  }
}

/** How a picture shows its page. */
async function shownIn(
  path: string,
  kind: 'full' | 'fold',
  render: RenderRecord,
  dpr: number,
  view: SnapshotView | undefined,
): Promise<PicturePair['shownA']> {
  const sharp = await loadSharp();
  const { width, height } = await sharp(path, { limitInputPixels: false }).metadata();
  if (kind === 'fold') {
    const { scroll, viewport } = view?.snapshot ?? { scroll: { x: 0, y: 0 }, viewport: { scale: 1 } };
    return { width, height, scale: dpr * viewport.scale, ...scroll };
  }
  const page = Math.max(render.document?.width ?? width, view?.snapshot.viewport.width ?? 0);
  return { width, height, scale: width / page, x: render.document?.left ?? 0, y: 0 };
}

/** Another document, or another address: told before anything else, since all differences may come of it. */
function variantOf({ a, b }: RenderPair, areProfiles: boolean): string | null {
  const path = (url: string | null) =>
    url !== null && URL.canParse(url) ? new URL(withoutQuery(url)).pathname : null;
  const [from, to] = [path(a.finalUrl), path(b.finalUrl)];
  if (from !== null && to !== null && from !== to) return `led to another address, ${to} in place of ${from}`;
  const [one, other] = [a.delivery.structure, b.delivery.structure];
  // Before and after a change another document is what is compared.
  return areProfiles && one !== null && other !== null && one !== other
    ? 'another document was served'
    : null;
}

function differenceRecord({ places, follows, ...difference }: Difference): DifferenceRecord {
  return { ...difference, follows: [...follows], places: places.map((place) => ({ ...place })) };
}
