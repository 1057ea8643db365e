import pLimit from 'p-limit';
import type { Sharp } from 'sharp';
import type { Finding } from '../core/findings/finding.js';
import { intersect, type Rect } from '../core/geometry/rect.js';
import type { Device } from '../core/profile/profile.js';
import { widthClass } from '../core/profile/width-class.js';
import { messageOf } from '../core/errors.js';
import { cropArea } from '../core/findings/crop-area.js';
import { findingRecord } from './finding-record.js';
import type { FindingRecord, RenderRecord } from './manifest.js';
import type { RunFolder } from './run-folder.js';
import { fileName } from './file-name.js';
import { renderKey } from './render-key.js';
import { svgOf, svgRect } from './svg.js';
import { loadSharp } from '../engine/load-sharp.js';

/**
 * Of which sightings a crop is written. `classes`: of errors and warnings, one for each class of widths, the farthest of it;
 * every other place is shown on the full picture.
 */
export const EVIDENCE = ['classes', 'every', 'none'] as const;
export type EvidenceChoice = (typeof EVIDENCE)[number];

const FAULT = '#d0103f';
const SUFFERS = '#1857b8';
/** Pictures that are held decoded at once. */
const AT_ONCE = 2;

/** What evidence is cut from. */
export interface EvidenceSources {
  /** Screens that were pictured while they were scrolled to (`screenKey`), PNG at device pixels. */
  readonly screens: ReadonlyMap<string, Buffer>;
  /** By page and profile, picture pixels of the first screen for a CSS px. */
  readonly scales: ReadonlyMap<string, number>;
}

export const screenKey = (page: string, profile: string, scrolled: number) =>
  `${renderKey(page, profile)}\n${Math.round(scrolled)}`;

/** A picture and which part of the page it shows: its top left in CSS px, and its pixels for each of them. */
interface Source {
  readonly picture: string | Buffer;
  readonly x: number;
  readonly y: number;
  /** Null for what its width says it is. */
  readonly scale: number | null;
  /** Of what it shows, CSS px. */
  readonly width: number;
}

type Seen = FindingRecord['seen'][number];

/**
 * Writes crops round the defects of a page, each of its pictures read once, and gives the findings with their paths. What shows
 * only where the page is scrolled to is cut from a picture taken there, what is fixed to the first screen from that.
 */
export async function withEvidence(
  findings: readonly Finding[],
  renders: readonly RenderRecord[],
  devices: readonly Device[],
  choice: EvidenceChoice,
  folder: RunFolder,
  sources: EvidenceSources,
): Promise<FindingRecord[]> {
  const classes = new Map(devices.map(({ name, width }) => [name, widthClass(width)]));
  const byRender = new Map(renders.map((render) => [renderKey(render.page, render.profile), render]));
  /** What is cut out of each picture. */
  const wanted = new Map<string | Buffer, { readonly source: Source; readonly cuts: Cut[] }>();
  const records = findings.map((finding) => {
    const chosen = chosenOf(finding, choice, (profile) => classes.get(profile) ?? '');
    const seen: Seen[] = finding.seen.map((sighting) => ({ ...sighting }));
    for (const at of chosen) {
      const sighting = seen[at]!;
      const { page, profile } = sighting;
      const render = byRender.get(renderKey(page, profile));
      const source = render && sourceOf(sighting, render, folder, sources);
      if (!source) continue;
      const state = page === finding.page ? '' : `-${page}`;
      const path = `evidence/${finding.id}${state}-${fileName(profile)}.png`;
      const list = wanted.get(source.picture) ?? { source, cuts: [] };
      wanted.set(source.picture, list);
      list.cuts.push({ path, sighting, render, done: () => (sighting.evidence = path) });
    }
    return findingRecord(finding, seen);
  });
  const limit = pLimit(AT_ONCE);
  await Promise.all(
    [...wanted.values()].map(({ source, cuts }) => limit(() => cutAll(source, cuts, folder))),
  );
  return records;
}

interface Cut {
  readonly path: string;
  readonly sighting: Seen;
  readonly render: RenderRecord;
  readonly done: () => void;
}

function sourceOf(
  { page, profile, scrolled }: Seen,
  { shots, document }: RenderRecord,
  folder: RunFolder,
  { screens, scales }: EvidenceSources,
): Source | null {
  const scale = scales.get(renderKey(page, profile)) ?? 1;
  const width = document?.width ?? 0;
  if (scrolled !== undefined) {
    const screen = screens.get(screenKey(page, profile, scrolled));
    if (screen) return { picture: screen, x: 0, y: scrolled, scale, width };
    if (scrolled === 0 && shots.fold !== undefined)
      return { picture: folder.full(shots.fold), x: 0, y: 0, scale, width };
  }
  if (shots.full === undefined) return null;
  return { picture: folder.full(shots.full), x: document?.left ?? 0, y: 0, scale: null, width };
}

async function cutAll(source: Source, cuts: readonly Cut[], folder: RunFolder): Promise<void> {
  const picture = await decoded(source.picture).catch(() => null);
  if (!picture) return;
  for (const { path, sighting, render, done } of cuts) {
    const crop = await cropOf(picture, source, sighting).catch(() => null);
    if (!crop) continue;
    await folder.write(path, crop).then(done, (error: unknown) => {
      const note = `its evidence could not be written: ${messageOf(error)}`;
      if (!render.notes.includes(note)) render.notes.push(note);
    });
  }
}

function chosenOf(
  { severity, seen }: Finding,
  choice: EvidenceChoice,
  classOf: (profile: string) => string,
): number[] {
  if (choice === 'every') return seen.map((_, at) => at);
  if (choice === 'none' || severity === 'notice') return [];
  const farthest = new Map<string, number>();
  for (const [at, { profile, by }] of seen.entries()) {
    const known = farthest.get(classOf(profile));
    if (known === undefined || (by?.px ?? 0) > (seen[known]!.by?.px ?? 0)) farthest.set(classOf(profile), at);
  }
  return [...farthest.values()];
}

/** Loads what cuts pictures while there is nothing else to do. */
export function prepareEvidence(): void {
  void loadSharp();
}

interface Picture {
  readonly width: number;
  readonly height: number;
  readonly pixels: () => Sharp;
}

async function decoded(file: string | Buffer): Promise<Picture> {
  const sharp = await loadSharp();
  const { data, info } = await sharp(file, { limitInputPixels: false })
    .raw()
    .toBuffer({ resolveWithObject: true });
  const { width, height, channels } = info;
  return { width, height, pixels: () => sharp(data, { raw: { width, height, channels } }) };
}

type Shown = Pick<Seen, 'rect' | 'by' | 'fault' | 'suffers' | 'lost'>;

/**
 * A crop of a full shot round a defect as PNG at one picture pixel a CSS px: the element at fault outlined, those that lose
 * something by it outlined with dashes, and what is lost filled.
 * @param shot path of the full shot
 * @param shown the defect, CSS px from the page's top left
 * @returns null when the defect lies outside the picture
 */
export async function evidenceCrop(shot: string, shown: Shown): Promise<Buffer | null> {
  return cropOf(await decoded(shot), { picture: shot, x: 0, y: 0, scale: 1, width: 0 }, shown);
}

async function cropOf(
  { width, height, pixels }: Picture,
  { x: beginning, y: top, ...source }: Source,
  shown: Shown,
): Promise<Buffer | null> {
  const scale = source.scale ?? width / source.width;
  const onPicture = (rect: Rect): Rect => ({ ...rect, y: rect.y - top });
  const page = { left: beginning, width: width / scale, height: height / scale };
  const { fault, suffers = [], lost = [] } = shown;
  const rect = onPicture(shown.rect);
  const all = {
    fault: onPicture(fault ?? shown.rect),
    suffers: suffers.map(onPicture),
    lost: lost.map(onPicture),
  };
  // What stays on the screen is at its place of the scrolled page, and stands elsewhere in the page at rest.
  if (!intersect(all.fault, { x: beginning, y: 0, ...page })) return null;
  const area = cropArea({ rect, by: shown.by, lost: all.lost, fault: all.fault }, page);
  const left = Math.floor((area.x - beginning) * scale);
  const from = Math.floor(area.y * scale);
  const crop = {
    left,
    top: from,
    width: Math.min(width - left, Math.ceil(area.width * scale)),
    height: Math.min(height - from, Math.ceil(area.height * scale)),
  };
  const size = { width: Math.round(crop.width / scale), height: Math.round(crop.height / scale) };
  const box = (each: Rect, style: string) =>
    svgRect({ ...each, x: each.x - beginning - left / scale, y: each.y - from / scale }, style);
  const outlines = [
    ...all.lost.map((each) => box(each, `fill="${FAULT}" fill-opacity="0.33"`)),
    ...all.suffers.map((each) =>
      box(each, `fill="none" stroke="${SUFFERS}" stroke-width="2" stroke-dasharray="6 4"`),
    ),
    box(all.fault, `fill="none" stroke="${FAULT}" stroke-width="3"`),
  ];
  return pixels()
    .extract(crop)
    .resize({ ...size, fit: 'fill' })
    .composite([{ input: svgOf(size, outlines.join('')), left: 0, top: 0 }])
    .png()
    .toBuffer();
}
